import { Box } from "@chakra-ui/react";
import { Link } from "react-router";

import { useChoice } from "../desk/choice";
import { useDocument } from "../desk/document";
import { Cup, FromSheet, Stager, Weighing, WhyHot } from "../features/heat";
import { Air, Chances, Clarity, FineCheck, Lines, Order, PourInspector, PourTable } from "../features/pours";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, heat, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "cure", movesFigures: false, offDisplay: false, Under: PourTable };
/** From this peak it is worth asking why. */
const WARM_C = 35;

/** The way to the plans side by side, and the fewest pours of one resin. */
function Staging() {
  const { work } = useDocument();
  return (
    <>
      <Box asChild color="depth" fontWeight={700} textDecoration="underline">
        <Link to={`/scenes/${work.id}/plans`}>Plans side by side: find the best way to pour it</Link>
      </Box>
      <Stager />
    </>
  );
}

function PoursInspector() {
  const { outcome } = useDocument();
  const { pourNumber } = useChoice();
  const cure = outcome.pours[pourNumber - 1]?.heat.cure;
  const hot = cure && cure.peak_c > WARM_C ? [{ word: "why hot", part: <WhyHot /> }] : [];
  return (
    <PourInspector
      more={[
        ...hot,
        { word: "bubbles", part: <Clarity /> },
        { word: "lines", part: <Lines /> },
        { word: "order", part: <Order /> },
        { word: "how sure", part: <Chances /> },
        {
          word: "cup",
          part: (
            <>
              <Cup />
              <Weighing />
            </>
          ),
        },
        { word: "room", part: <Air /> },
        { word: "plans", part: <Staging /> },
        { word: "resin", part: <FromSheet /> },
        { word: "fine check", part: <FineCheck /> },
      ]}
    />
  );
}

export const pours: Stage = {
  word: "pours",
  Inspector: PoursInspector,
  views: [front(SHOWN), heat(SHOWN), side(SHOWN), ROUND],
};
