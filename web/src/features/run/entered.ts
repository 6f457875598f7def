/** What was entered in a run: by whom it does not matter, and what of it still counts. */
import type { BenchStep, RunNow } from "../../api/types";
import type { RunEvent } from "../../jobs/outbox";
import { event, type Teller } from "./telling";

/** How the id of a step ends for what was added to put its cup right: it is taken back by itself. */
export const MORE = ":more";

export interface Entered {
  now: RunNow | null;
  waiting: readonly RunEvent[];
  teller: Teller;
}

/** All that was entered, each once: what the server has, and what waits here, or was still waiting a moment ago. */
function all(run: Entered): RunEvent[] {
  const known = (run.now?.events ?? []) as RunEvent[];
  const ids = new Set(known.map((one) => one.id));
  return [...known, ...run.waiting.filter((one) => !ids.has(one.id))];
}

/** What was not taken back; an undo that was itself undone no longer counts. */
function alive(events: readonly RunEvent[]): RunEvent[] {
  const gone = new Set<string>();
  for (const one of [...events].reverse()) {
    if (one.kind === "undone" && !gone.has(one.id)) gone.add(String(one.event_id));
  }
  return events.filter((one) => one.kind !== "undone" && !gone.has(one.id));
}

/** A pour is told twice: as it begins, and when it is in. */
export function needsStart(step: BenchStep, run: Entered): boolean {
  return step.kind === "pour" && !alive(all(run)).some((one) => one.kind === "pouring" && one.pour_id === step.pour_id);
}

/** Takes back all that belongs to the step that was entered last; the events stay. */
export function undoing(run: Entered, steps: readonly BenchStep[]): RunEvent[] {
  const known = new Set(steps.map((step) => step.id));
  const counting = alive(all(run)).filter(
    (one) => one.kind !== "noted" && known.has((one.step_id ?? "").replace(MORE, "")),
  );
  const last = [...counting].sort((a, b) => Date.parse(a.at) - Date.parse(b.at)).at(-1);
  return counting
    .filter((one) => one.step_id === last?.step_id)
    .map((one) => event(run.teller, "", "undone", { event_id: one.id }));
}
