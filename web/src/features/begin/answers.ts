import type { Beginning, Usual } from "../../api/types";

/** Answers so far, with all that a question shows filled in by what is usual. */
export type Answers = Required<Omit<Beginning, "usual" | "begins_on" | "deadline" | "budget">> &
  Pick<Beginning, "begins_on" | "deadline" | "budget"> & { usual: Usual };

export const FIRST: Omit<Answers, "usual"> = {
  name: "A new piece",
  shape: { kind: "box" },
  scale: 48,
  width_mm: 140,
  behind_mm: 100,
  deep_mm: 100,
  viewing_sides: ["front", "above"],
  walls_stay: false,
  bed: "slope",
  bed_material: "plaster",
  measured: [],
  water: "green",
  figures: [{ kind: "fish", count: 3 }],
};

/** What a question gets. */
export interface Asked {
  answers: Answers;
  take: (change: Partial<Answers>) => void;
}

/** So many more or fewer of a kind. */
export function withCount(figures: Answers["figures"], kind: string, by: number): Answers["figures"] {
  const count = (figures.find((one) => one.kind === kind)?.count ?? 0) + by;
  const rest = figures.filter((one) => one.kind !== kind);
  if (count < 1) return rest;
  const at = figures.findIndex((one) => one.kind === kind);
  const wanted = { kind, count: Math.min(12, count) };
  return at < 0 ? [...figures, wanted] : figures.map((one) => (one.kind === kind ? wanted : one));
}
