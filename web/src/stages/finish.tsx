import { FinishInspector } from "../features/finish";
import { PourTable } from "../features/pours";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, LOOK, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false, Under: PourTable };

export const finish: Stage = {
  word: "finish",
  Inspector: FinishInspector,
  views: [front(SHOWN), side(SHOWN), ROUND, LOOK],
};
