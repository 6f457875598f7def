import { useChoice } from "../desk/choice";
import { useDocument } from "../desk/document";
import { Cup, FromSheet, Stager, WhyHot } from "../features/heat";
import { Air, FineCheck, PourInspector } from "../features/pours";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, heat, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "cure", movesFigures: false, offDisplay: false };
/** From this peak it is worth asking why. */
const WARM_C = 35;

function PoursInspector() {
  const { outcome } = useDocument();
  const { pourNumber } = useChoice();
  const cure = outcome.pours[pourNumber - 1]?.heat.cure;
  return (
    <PourInspector>
      {cure && cure.peak_c > WARM_C ? <WhyHot /> : null}
      <Cup />
      <Air />
      <Stager />
      <FromSheet />
      <FineCheck />
    </PourInspector>
  );
}

export const pours: Stage = {
  word: "pours",
  Inspector: PoursInspector,
  views: [front(SHOWN), heat(SHOWN), side(SHOWN), ROUND],
};
