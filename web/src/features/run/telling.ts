/** What a device enters of a run: events with ids of their own, at the server's time. */
import type { BenchStep } from "../../api/types";
import type { RunEvent } from "../../jobs/outbox";

const NAMES = ["tablet", "phone", "laptop"] as const;

/** What this device is called among those of a run: kept, so that a reload is the same device. */
export function deviceName(): string {
  const kept = localStorage.getItem("gondola-device");
  if (kept) return kept;
  const kind = window.innerWidth < 500 ? NAMES[1] : window.innerWidth < 1000 ? NAMES[0] : NAMES[2];
  const name = `${kind} ${crypto.randomUUID().slice(0, 4)}`;
  localStorage.setItem("gondola-device", name);
  return name;
}

export interface Teller {
  /** by the run's own clock, in milliseconds */
  now: () => number;
  seen: number;
}

export function event(teller: Teller, step_id: string, kind: string, fields: Record<string, unknown> = {}): RunEvent {
  return {
    id: crypto.randomUUID(),
    at: new Date(teller.now()).toISOString(),
    kind,
    step_id,
    device: deviceName(),
    seen: teller.seen,
    ...fields,
  };
}

/** What was entered with a step. */
export interface Entry {
  mass_g?: number | null;
  drops?: number | null;
  measured_c?: number | null;
  feels?: string | null;
  sealed?: boolean | null;
  right_lower_mm?: number;
  front_lower_mm?: number;
  line_depth_mm?: number | null;
}

/** The events by which a step is over, with what was entered; the end of the step is the last. */
export function ended(teller: Teller, step: BenchStep, entry: Entry): RunEvent[] {
  const made = [...recorded(teller, step, entry), event(teller, step.id, "done")];
  return made.map((one, at) => ({ ...one, at: new Date(Date.parse(one.at) + at).toISOString() }));
}

/**
 * The same events, none of them before what this device has entered already: its idea of the server's clock steps back
 * where an answer took long, and a run is told in the order in which it was entered.
 */
export function inOrder(events: RunEvent[], entered: Pick<RunEvent, "at" | "device">[]): RunEvent[] {
  const own = entered.filter((one) => one.device === deviceName()).map((one) => Date.parse(one.at));
  const first = Math.min(...events.map((one) => Date.parse(one.at)));
  const late_ms = Math.max(0, ...own.map((at) => at + 1 - first));
  return events.map((one) => ({ ...one, at: new Date(Date.parse(one.at) + late_ms).toISOString() }));
}

function recorded(teller: Teller, step: BenchStep, entry: Entry): RunEvent[] {
  const tell = (kind: string, fields: Record<string, unknown> = {}) => event(teller, step.id, kind, fields);
  const pour = { pour_id: step.pour_id };
  const cup = { ...pour, cup: step.cup };
  switch (step.kind) {
    case "room":
      return entry.measured_c == null ? [] : [tell("measured", { what: "room", measured_c: entry.measured_c })];
    case "temper":
      return entry.measured_c == null ? [] : [tell("measured", { what: "mix", ...pour, measured_c: entry.measured_c })];
    case "level":
      return [
        tell("levelled", { right_lower_mm: entry.right_lower_mm ?? 0, front_lower_mm: entry.front_lower_mm ?? 0 }),
      ];
    case "tight":
      return entry.sealed == null ? [] : [tell("sealed", { sealed: entry.sealed })];
    case "feel":
      return entry.feels ? [tell("felt", { ...below(step), feels: entry.feels })] : [];
    case "abrade":
      return [tell("abraded", below(step))];
    case "figure":
      return [tell("placed", { figure_id: step.figure_id })];
    case "weigh_a":
    case "weigh_b": {
      const part = step.kind === "weigh_a" ? "a" : "b";
      const met = part === "b" ? [tell("met", cup)] : [];
      return entry.mass_g == null ? met : [tell("weighed", { ...cup, part, mass_g: entry.mass_g }), ...met];
    }
    case "colour":
      return [tell("dropped", { ...cup, colourant_id: step.colourant_id, ...dropped(step, entry) })];
    case "flame":
      return [tell("flamed", pour)];
    case "pour":
      return step.line_depth_mm == null
        ? []
        : [tell("poured", { ...pour, piece: Math.max(1, step.piece), line_depth_mm: entry.line_depth_mm ?? null })];
    default:
      return [];
  }
}

/** The pour that is felt or abraded is the one below; its id travels with the step of the next. */
function below(step: BenchStep): { pour_id: string } {
  return { pour_id: step.below_id };
}

/** Neat drops, and the part A of their stock, for as many drops as really fell. */
function dropped(step: BenchStep, entry: Entry): { neat_drops: number; part_a_g: number } {
  const share = step.drops && entry.drops != null ? entry.drops / step.drops : 1;
  return { neat_drops: (step.neat_drops ?? 0) * share, part_a_g: step.stock_a_g * share };
}
