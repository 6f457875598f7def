/** What was typed or shown at a step, as numbers of the document. */
import type { BenchStep, InstrumentState, Units } from "../../api/types";
import { UNITS, unitOf } from "../../units/table";
import type { Entry } from "./telling";

export function massFigure(g: number | null, units: Units): string {
  if (g === null) return "–";
  return units.mass === "oz" ? UNITS.mass.oz.fromDocument(g).toFixed(2) : g.toFixed(1);
}

const number = (text: string | undefined) => {
  const value = Number((text ?? "").replace(",", ".").trim());
  return text?.trim() && Number.isFinite(value) ? value : null;
};

/** The entry of a step: a device's reading where it reads, else what was typed; `flaw` where that is no number. */
export function readEntry(
  step: BenchStep,
  typed: Record<string, string>,
  scale: InstrumentState | null,
  thermometer: InstrumentState | null,
  target_g: number,
  units: Units,
  byVolume = false,
): { entry: Entry; flaw: string } {
  const flawed = Object.values(typed).find((text) => text.trim() !== "" && number(text) === null);
  if (flawed !== undefined) return { entry: {}, flaw: `'${flawed}' is no number.` };
  const mass = (text: string | undefined) => {
    const value = number(text);
    if (value === null) return null;
    return byVolume && step.target_ml
      ? unitOf("volume", units).toDocument(value) * densityOf(step)
      : unitOf("mass", units).toDocument(value);
  };
  const length = (text: string | undefined) => unitOf("length", units).toDocument(number(text) ?? 0);
  switch (step.asks) {
    case "mass":
      return { entry: { mass_g: scale?.plugged ? scale.mass_g : (mass(typed.mass) ?? round(target_g)) }, flaw: "" };
    case "drops":
      return { entry: { drops: number(typed.drops) ?? step.drops ?? null }, flaw: "" };
    case "room":
    case "mix": {
      const live = step.asks === "room" ? thermometer?.room_c : thermometer?.resin_c;
      const value = number(typed.warm);
      const typed_c = value === null ? null : unitOf("temperature", units).toDocument(value);
      return { entry: { measured_c: typed_c ?? (thermometer?.plugged ? live : null) }, flaw: "" };
    }
    case "sealed":
      return { entry: { sealed: typed.sealed ? typed.sealed === "1" : null }, flaw: "" };
    case "level":
      return { entry: { right_lower_mm: length(typed.right), front_lower_mm: length(typed.front) }, flaw: "" };
    case "line": {
      const below = length(typed.line);
      return { entry: { line_depth_mm: below === 0 ? null : (step.line_depth_mm ?? 0) + below }, flaw: "" };
    }
    default:
      return { entry: {}, flaw: "" };
  }
}

/** Grams in a millilitre of a part, as its two marks tell. */
export const densityOf = (step: BenchStep) => (step.target_g ?? 1) / (step.target_ml ?? 1);

const round = (value: number) => Math.round(value * 100) / 100;
