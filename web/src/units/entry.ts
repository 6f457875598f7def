/** What a person types, in whatever unit they name, as a number in the document's own unit. */
import { ask } from "../api/ask";
import { api } from "../api/client";
import type { Units } from "../api/types";
import { type QuantityName, unitOf } from "./table";

/** A bare number, whole or with a decimal point or comma; undefined for anything else. */
export function bareNumber(text: string): number | undefined {
  const plain = text.trim().replace("−", "-");
  if (/^-?\d{1,3},\d{3}$/.test(plain)) return undefined;
  return /^-?(\d+([.,]\d*)?|[.,]\d+)$/.test(plain) ? Number(plain.replace(",", ".")) : undefined;
}

/** A bare number is in the person's own unit; every other form is read by the core. */
export async function readQuantity(text: string, quantity: QuantityName, units: Units): Promise<number> {
  const unit = unitOf(quantity, units);
  const bare = bareNumber(text.endsWith(unit.word) && unit.word ? text.slice(0, -unit.word.length) : text);
  if (bare !== undefined) return unit.toDocument(bare);
  if (quantity === "plain") throw new Error(`Not understood; write it like ${unit.example}.`);
  const { value } = await ask(
    api.GET("/api/quantity", { params: { query: { text, quantity, unit: unit.word.replace("°", "").toLowerCase() } } }),
  );
  return value;
}
