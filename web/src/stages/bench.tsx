import { BenchInspector } from "../features/bench";
import { PourTable } from "../features/pours";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "cure", movesFigures: false, offDisplay: false, Under: PourTable };

export const bench: Stage = {
  word: "bench",
  Inspector: BenchInspector,
  typedFirst: true,
  views: [front(SHOWN), side(SHOWN), ROUND],
};
