import { TankInspector } from "../features/tank";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { CUT_LIST, front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false, Under: null };

export const tank: Stage = {
  word: "tank",
  Inspector: TankInspector,
  views: [front(SHOWN), side(SHOWN), ROUND, CUT_LIST],
};
