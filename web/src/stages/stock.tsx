import { useDocument } from "../desk/document";
import { Row, Title } from "../ui/row";
import { weighedText } from "../units/display";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, ROUND } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false };

/** How much of each resin the whole plan takes. */
function ToHave() {
  const { scene, outcome, units } = useDocument();
  return (
    <>
      <Title>Stock</Title>
      <dl>
        {scene.resins.map((resin) => {
          const pours = outcome.pours.filter((pour) => pour.resin_id === resin.id);
          const mass = pours.reduce((sum, pour) => sum + pour.cup.mix.part_a_g + pour.cup.mix.part_b_g, 0);
          return (
            <Row key={resin.id} label={resin.name}>
              {weighedText(mass, units)}
            </Row>
          );
        })}
      </dl>
    </>
  );
}

export const stock: Stage = { word: "stock", Inspector: ToHave, views: [front(SHOWN), ROUND] };
