/** The document's numbers as a person reads them, in their own units. */

import type { Units } from "../api/types";
import { UNITS, unitOf } from "./table";

const trim = (value: number, digits: number) =>
  value
    .toFixed(digits)
    .replace(/(\.\d*?)0+$/, "$1")
    .replace(/\.$/, "")
    .replace(/^-0$/, "0");

/** Lengths under this are told in decimals of an inch: a sixteenth is too coarse for them. */
const SIXTEENTHS_FROM_MM = 6;

/** Square inches of a square millimetre. */
const SQUARE_INCHES = UNITS.length.in.fromDocument(1) ** 2;

/** Inches as on a rule, to a sixteenth: 39.7 mm is "1 9/16". */
export function ruleInches(mm: number): string {
  const sixteenths = Math.round(UNITS.length.in.fromDocument(Math.abs(mm)) * 16);
  const whole = Math.floor(sixteenths / 16);
  let [part, of] = [sixteenths % 16, 16];
  while (part > 0 && part % 2 === 0) [part, of] = [part / 2, of / 2];
  const figures = [whole || !part ? String(whole) : "", part ? `${part}/${of}` : ""].filter(Boolean);
  return `${mm < 0 && sixteenths ? "-" : ""}${figures.join(" ")}`;
}

export function lengthText(mm: number, units: Units, digits = 0): string {
  if (units.length !== "in") return `${trim(mm, digits)} mm`;
  return Math.abs(mm) < SIXTEENTHS_FROM_MM ? `${trim(UNITS.length.in.fromDocument(mm), 3)} in` : `${ruleInches(mm)} in`;
}

/** The bare figure, for axes that name their unit once. */
export function lengthFigure(mm: number, units: Units): string {
  return units.length === "in" ? ruleInches(mm) : trim(mm, 0);
}

export const lengthUnit = (units: Units) => unitOf("length", units).word;

export function temperatureText(c: number, units: Units, digits = 0): string {
  return `${trim(unitOf("temperature", units).fromDocument(c), digits)} ${temperatureUnit(units)}`;
}

export const temperatureUnit = (units: Units) => unitOf("temperature", units).word;

export function temperatureFigure(c: number, units: Units): string {
  return trim(unitOf("temperature", units).fromDocument(c), 0);
}

/** A difference of temperatures. */
export function differenceText(k: number, units: Units, digits = 0): string {
  return units.temperature === "f" ? `${trim((k * 9) / 5, digits)} °F` : `${trim(k, digits)} K`;
}

export function volumeText(ml: number, units: Units, digits?: number): string {
  if (units.volume === "floz") {
    const ounces = UNITS.volume.floz.fromDocument(ml);
    return `${trim(ounces, ounces < 0.1 ? 3 : ounces < 1 ? 2 : 1)} fl oz`;
  }
  return ml >= 9999.5 ? `${trim(ml / 1000, 2)} l` : `${trim(ml, digits ?? (ml < 20 ? 1 : 0))} ml`;
}

export function massText(g: number, units: Units): string {
  if (units.mass === "oz") {
    const ounces = UNITS.mass.oz.fromDocument(g);
    return `${trim(ounces, ounces < 0.1 ? 3 : 2)} oz`;
  }
  if (g < 1) return `${trim(g * 1000, 0)} mg`;
  return `${trim(g, g < 100 ? 1 : 0)} g`;
}

/** A force in grams-force or ounces-force. */
export function forceText(gf: number, units: Units): string {
  return units.mass === "oz" ? `${trim(UNITS.mass.oz.fromDocument(gf), 3)} ozf` : `${gf.toFixed(2)} gf`;
}

export function areaText(cm2: number, units: Units, digits = 0): string {
  return units.length === "in" ? `${trim(cm2 * 100 * SQUARE_INCHES, 1)} in²` : `${trim(cm2, digits)} cm²`;
}

export function smallAreaText(mm2: number, units: Units): string {
  return units.length === "in" ? `${trim(mm2 * SQUARE_INCHES, 3)} in²` : `${trim(mm2, 1)} mm²`;
}

export function heavyText(kg: number, units: Units): string {
  return units.mass === "oz" ? `${trim(UNITS.mass.oz.fromDocument(kg * 1000) / 16, 1)} lb` : `${trim(kg, 1)} kg`;
}

/** Always to a tenth: what the scale is watched for. */
export function weighedText(g: number, units: Units): string {
  return units.mass === "oz" ? `${UNITS.mass.oz.fromDocument(g).toFixed(2)} oz` : `${g.toFixed(1)} g`;
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

/** The day of a moment that was, with its year, by the clock of who reads. */
export function dateText(at: string): string {
  return new Date(at).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}

export function clockText(text: string): string {
  return text.slice(11, 16);
}

export function whenText(text: string | null): string {
  return text === null ? "not in this room" : `${dayText(text)}, ${clockText(text)}`;
}

/** The clock in the room, as a document writes it. */
export function localNow(): string {
  const now = new Date();
  const two = (part: number) => String(part).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}T${two(now.getHours())}:${two(now.getMinutes())}`;
}
