import { FiguresInspector } from "../features/figures";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: true, offDisplay: false, Under: null };

export const figures: Stage = {
  word: "figures",
  Inspector: FiguresInspector,
  views: [front(SHOWN), side(SHOWN), ROUND],
};
