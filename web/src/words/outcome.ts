/** What the codes of an outcome are called on the page. */
import type { FigureFacts, PourOutcome } from "../api/types";

export const JOINTS: Record<PourOutcome["joint"]["meets"], string> = {
  on_bed: "on the bed",
  too_early: "too early: runs together",
  bonds: "in the window: bonds",
  too_late: "after the tack: abrade first",
  too_close: "too close to call",
};

export const SEEN: Record<NonNullable<PourOutcome["joint"]["seam"]>["seen"], string> = {
  invisible: "invisible",
  searched_for: "searched for",
  seen: "seen",
  band: "a band",
};

export const BEHAVES: Record<FigureFacts["behaves"], string> = {
  floats: "floats",
  sinks: "sinks",
  drifts: "near neutral, may drift",
};

export const STRESS_CAUSES: Record<NonNullable<PourOutcome["heat"]["stress"]>["cause"], string> = {
  core_in_skin: "its core cools in a skin that is hard already",
  warm_core: "its core froze warmer than its skin",
  walls: "walls and layer hold it as it cools",
  hard_bed: "hard bed and figures hold it as it cools",
};
