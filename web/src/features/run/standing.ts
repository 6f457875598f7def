/** Where a run stands with what waits on this device: as the server said it, and what was entered since. */
import type { BenchStep, RunNow } from "../../api/types";
import type { RunEvent } from "../../jobs/outbox";

export interface Standing {
  done: string[];
  current: string;
  /** its clock, by what was entered here where the server has not said it yet */
  until_ms: number | null;
}

/** Steps that are over, and the one to do now, with events that the server does not have yet. */
export function standing(steps: readonly BenchStep[], now: RunNow, waiting: readonly RunEvent[]): Standing {
  if (waiting.length === 0) {
    const until = now.state.waits_until;
    return { done: now.state.done, current: now.state.current, until_ms: until ? Date.parse(until) : null };
  }
  const undone = new Set(waiting.filter((one) => one.kind === "undone").map((one) => String(one.event_id)));
  const ended = new Map<string, string>();
  for (const one of now.events) if (one.kind === "done") ended.set(one.id, one.step_id ?? "");
  const done = new Set(now.state.done);
  for (const id of undone) {
    const step = ended.get(id);
    if (step) done.delete(step);
  }
  for (const one of waiting) if (one.kind === "done" && !undone.has(one.id)) done.add(one.step_id ?? "");
  const current = steps.find((step) => !done.has(step.id));
  return {
    done: steps.filter((step) => done.has(step.id)).map((step) => step.id),
    current: current?.id ?? "",
    until_ms: clock(current, waiting),
  };
}

/** The end of a step's clock where what it runs from waits here. */
function clock(step: BenchStep | undefined, waiting: readonly RunEvent[]): number | null {
  if (!step?.clock_min || !step.after) return null;
  const from = waiting.filter((one) => one.kind === (step.after === "poured" ? "poured" : "done")).at(-1);
  return from ? Date.parse(from.at) + step.clock_min * 60_000 : null;
}
