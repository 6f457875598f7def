import { BedInspector } from "../features/bed";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { CHART, front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false, Under: null };

export const bed: Stage = { word: "bed", Inspector: BedInspector, views: [CHART, front(SHOWN), side(SHOWN), ROUND] };
