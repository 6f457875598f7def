/** The document's numbers as a person reads them, in their own units. */

import type { Units } from "../api/types";

const trim = (value: number, digits: number) =>
  value.toFixed(digits).replace(/(\.\d*?)0+$/, "$1").replace(/\.$/, "").replace(/^-0$/, "0");

export function lengthText(mm: number, units: Units, digits = 0): string {
  return units.length === "in" ? `${trim(mm / 25.4, 2)} in` : `${trim(mm, digits)} mm`;
}

/** The bare figure, for axes that name their unit once. */
export function lengthFigure(mm: number, units: Units): string {
  return units.length === "in" ? trim(mm / 25.4, 2) : trim(mm, 0);
}

export function temperatureText(c: number, units: Units, digits = 0): string {
  return units.temperature === "f" ? `${trim((c * 9) / 5 + 32, digits)} °F` : `${trim(c, digits)} °C`;
}

export function temperatureFigure(c: number, units: Units): string {
  return trim(units.temperature === "f" ? (c * 9) / 5 + 32 : c, 0);
}

export function volumeText(ml: number, units: Units): string {
  if (units.volume === "floz") return `${trim(ml / 29.5735, 1)} fl oz`;
  return ml >= 9999.5 ? `${trim(ml / 1000, 2)} l` : `${trim(ml, ml < 20 ? 1 : 0)} ml`;
}

export function massText(g: number, units: Units): string {
  if (units.mass === "oz") return `${trim(g / 28.3495, 2)} oz`;
  if (g < 1) return `${trim(g * 1000, 0)} mg`;
  return `${trim(g, g < 100 ? 1 : 0)} g`;
}

/** Always to a tenth: what the scale is watched for. */
export function weighedText(g: number, units: Units): string {
  return units.mass === "oz" ? `${(g / 28.3495).toFixed(2)} oz` : `${g.toFixed(1)} g`;
}

export function hoursText(hours: number | null | undefined): string {
  if (hours === null || hours === undefined) return "not reached";
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  if (hours < 72) return `${trim(hours, hours < 10 ? 1 : 0)} h`;
  return `${trim(hours / 24, 1)} d`;
}

/** A band of hours, its unit told once where both ends share it. */
export function hoursBand(span: { early_h: number; late_h: number | null }): string {
  const early = hoursText(span.early_h);
  if (span.late_h === null) return `${early} or later`;
  const late = hoursText(span.late_h);
  if (early === late) return early;
  const [figure, unit] = early.split(" ");
  return late.endsWith(` ${unit}`) ? `${figure} to ${late}` : `${early} to ${late}`;
}

const DAYS = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** A local moment such as 2027-03-05T09:00, read without any time zone. */
export function moment(text: string): Date {
  return new Date(`${text.length === 16 ? `${text}:00` : text.slice(0, 19)}Z`);
}

export function dayText(text: string): string {
  const at = moment(text);
  return `${DAYS[at.getUTCDay()] ?? ""} ${at.getUTCDate()} ${MONTHS[at.getUTCMonth()] ?? ""}`;
}

export function clockText(text: string): string {
  return text.slice(11, 16);
}

export function whenText(text: string | null): string {
  return text === null ? "not in this room" : `${dayText(text)}, ${clockText(text)}`;
}
