/** One table of quantities: how each unit that a person may read in stands to the document's own. */
import type { Units } from "../api/types";

export type QuantityName =
  "length" | "temperature" | "volume" | "mass" | "hours" | "minutes" | "area" | "small_area" | "plain";

export interface Unit {
  /** as written behind a number */
  word: string;
  fromDocument: (value: number) => number;
  toDocument: (value: number) => number;
  /** digits of a bare figure */
  digits: number;
  /** how it may be typed */
  example: string;
}

const by = (factor: number, word: string, digits: number, example: string): Unit => ({
  word,
  digits,
  example,
  fromDocument: (value) => value / factor,
  toDocument: (value) => value * factor,
});

export const UNITS = {
  length: { mm: by(1, "mm", 0, "65 mm"), in: by(25.4, "in", 2, "2 1/2 in") },
  temperature: {
    c: by(1, "°C", 0, "23 C"),
    f: {
      word: "°F",
      digits: 0,
      example: "75 F",
      fromDocument: (c: number) => (c * 9) / 5 + 32,
      toDocument: (f: number) => ((f - 32) * 5) / 9,
    },
  },
  volume: { ml: by(1, "ml", 0, "500 ml"), floz: by(29.5735, "fl oz", 1, "8 fl oz") },
  mass: { g: by(1, "g", 1, "120 g"), oz: by(28.3495, "oz", 2, "4 oz") },
} as const satisfies Record<string, Record<string, Unit>>;

const SAME: Record<Exclude<QuantityName, keyof typeof UNITS>, Unit> = {
  hours: by(1, "h", 0, "30 h or 1 d 6 h"),
  minutes: by(1, "min", 0, "45 min"),
  area: by(1, "cm²", 1, "12 cm²"),
  small_area: by(1, "mm²", 0, "20 mm²"),
  plain: by(1, "", 2, "12.5"),
};

/** The unit in which a person reads a quantity. */
export function unitOf(quantity: QuantityName, units: Units): Unit {
  if (quantity === "length") return UNITS.length[units.length ?? "mm"];
  if (quantity === "temperature") return UNITS.temperature[units.temperature ?? "c"];
  if (quantity === "volume") return UNITS.volume[units.volume ?? "ml"];
  if (quantity === "mass") return UNITS.mass[units.mass ?? "g"];
  return SAME[quantity];
}
