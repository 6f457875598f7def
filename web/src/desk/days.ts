import { moment } from "../units/display";

const WORDS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];

/** Midnights within a span, in hours from the first pour, with the name of the day they begin. */
export function days(first_pour_at: string, span_h: number): { at_h: number; word: string }[] {
  const start = moment(first_pour_at);
  const midnight = Date.UTC(start.getUTCFullYear(), start.getUTCMonth(), start.getUTCDate());
  const found = [];
  for (let day = 0; day * 24 < span_h + 24; day += 1) {
    const at = new Date(midnight + day * 86_400_000);
    const at_h = (at.getTime() - start.getTime()) / 3_600_000;
    if (at_h <= span_h)
      found.push({ at_h: Math.max(0, at_h), word: `${WORDS[at.getUTCDay()] ?? ""} ${at.getUTCDate()}` });
  }
  return found;
}

/** The wait that a pour has after its start was moved by so many hours, in half hours. */
export function movedWait(wait_h: number, by_h: number): number {
  return Math.min(720, Math.max(0, Math.round((wait_h + by_h) * 2) / 2));
}
