/** What the codes of an outcome are called on the page. */
import type { FigureFacts } from "../api/types";

export const BEHAVES: Record<FigureFacts["behaves"], string> = {
  floats: "floats",
  sinks: "sinks",
  drifts: "near neutral, may drift",
};
