import { LogInspector } from "../features/log";
import { PourTable } from "../features/pours";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false, Under: PourTable };

export const log: Stage = { word: "log", Inspector: LogInspector, views: [front(SHOWN), side(SHOWN), ROUND] };
