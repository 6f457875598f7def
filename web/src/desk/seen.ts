import type { Outcome } from "../api/types";

/** Ink of a layer line by how it is seen. */
export const SEEN_INKS: Record<Outcome["lines"][number]["worst"], "soft" | "watch" | "caution"> = {
  invisible: "soft",
  searched_for: "soft",
  seen: "watch",
  band: "caution",
};
