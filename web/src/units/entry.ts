/** What a person types, in whatever unit they name, as a number in the document's own unit. */

export type Measure = "length" | "temperature" | "hours" | "plain";

const WORDS: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4, inches: 25.4, '"': 25.4 };

function number(text: string): number | undefined {
  const plain = text.trim().replace(",", ".").replace("−", "-");
  const mixed = /^(-?\d+(?:\.\d+)?)(?:\s+(\d+)\s*\/\s*(\d+))?$/.exec(plain);
  if (mixed) {
    const whole = Number(mixed[1]);
    if (!mixed[2]) return whole;
    const part = Number(mixed[2]) / Number(mixed[3]);
    return Number.isFinite(part) ? whole + part : undefined;
  }
  const fraction = /^(\d+)\s*\/\s*(\d+)$/.exec(plain);
  if (fraction) {
    const value = Number(fraction[1]) / Number(fraction[2]);
    return Number.isFinite(value) ? value : undefined;
  }
  return undefined;
}

/** Millimetres from "65", "65 mm", "2 1/2 in", "6.5cm"; a bare number is in `bare`. */
export function parseLength(text: string, bare: "mm" | "in" = "mm"): number | undefined {
  const found = /^(.*?)\s*(mm|cm|m|in|inch|inches|")?$/i.exec(text.trim());
  const value = found ? number(found[1] ?? "") : undefined;
  const factor = WORDS[(found?.[2] ?? bare).toLowerCase()];
  return value === undefined || factor === undefined ? undefined : value * factor;
}

/** Degrees Celsius from "23", "23C", "75 F", "75°F"; a bare number is in `bare`. */
export function parseTemperature(text: string, bare: "c" | "f" = "c"): number | undefined {
  const found = /^(.*?)\s*°?\s*([cf])?$/i.exec(text.trim());
  const value = found ? number(found[1] ?? "") : undefined;
  if (value === undefined) return undefined;
  return (found?.[2] ?? bare).toLowerCase() === "f" ? ((value - 32) * 5) / 9 : value;
}

/** Hours from "30", "30 h", "1 d 6 h", "90 min". */
export function parseHours(text: string): number | undefined {
  const plain = text.trim().toLowerCase();
  const bare = number(plain);
  if (bare !== undefined) return bare;
  const parts = [...plain.matchAll(/(\d+(?:[.,]\d+)?)\s*(d|h|min|m)\b/g)];
  if (!parts.length || plain.replace(/(\d+(?:[.,]\d+)?)\s*(d|h|min|m)\b/g, "").trim()) return undefined;
  const hours = { d: 24, h: 1, min: 1 / 60, m: 1 / 60 };
  return parts.reduce(
    (sum, part) => sum + Number(part[1]?.replace(",", ".")) * hours[part[2] as keyof typeof hours],
    0,
  );
}

export function parse(text: string, measure: Measure, units: { length?: string; temperature?: string }): number | undefined {
  if (measure === "length") return parseLength(text, units.length === "in" ? "in" : "mm");
  if (measure === "temperature") return parseTemperature(text, units.temperature === "f" ? "f" : "c");
  if (measure === "hours") return parseHours(text);
  return number(text);
}
