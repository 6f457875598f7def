import type { BenchStep } from "../../api/types";
import type { FollowedRun } from "./use-run";

/** What goes wrong in a rehearsal, at its step. */
export function Mishaps(props: { run: FollowedRun; step: BenchStep | null }) {
  return props.run.now?.rehearsal ? null : null;
}
