/** Whether alarms are to be silent now, by the person's own clock. */
import type { RunNow } from "../../api/types";
import { moment } from "../../units/display";

/** The hour of the person's day at a moment of the run. */
export function localHour(now: RunNow, at_ms: number): number {
  const local = moment(now.local_now).getTime() + (at_ms - Date.parse(now.now));
  return (local / 3_600_000) % 24;
}

/** Quiet hours may go past midnight. */
export function inQuiet(quiet: readonly number[] | null | undefined, hour: number): boolean {
  const [start, end] = quiet ?? [];
  if (start === undefined || end === undefined) return false;
  return start <= end ? hour >= start && hour < end : hour >= start || hour < end;
}
