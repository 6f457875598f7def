import { DoseTable, WaterInspector } from "../features/water";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, LOOK, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "water", movesFigures: false, offDisplay: true, Under: DoseTable };

export const water: Stage = {
  word: "water",
  Inspector: WaterInspector,
  views: [front(SHOWN), side(SHOWN), ROUND, LOOK],
};
