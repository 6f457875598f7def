import type { Outcome } from "../../api/types";

export interface SightRow {
  name: string;
  depth_mm: number;
  contrast_fraction: number;
  lost: boolean;
  figureIds: string[];
}

const LOST_DE00 = 3;

/** Figures of one kind in one row ("perch 1", "perch 2" ... as "5 perch"), least seen first. */
export function sightRows(sights: Outcome["sights"]): SightRow[] {
  const kinds = new Map<string, Outcome["sights"]>();
  for (const sight of sights) {
    const kind = sight.name.replace(/\s+\d+$/, "");
    kinds.set(kind, [...(kinds.get(kind) ?? []), sight]);
  }
  return [...kinds].map(([kind, ones]) => {
    const middles = ones.map((one) => (one.top_depth_mm + one.bottom_depth_mm) / 2);
    return {
      name: ones.length > 1 ? `${ones.length} ${kind}` : kind,
      depth_mm: middles.reduce((sum, one) => sum + one, 0) / ones.length,
      contrast_fraction: Math.min(...ones.map((one) => one.contrast_fraction)),
      lost: ones.some((one) => one.difference_de00 < LOST_DE00),
      figureIds: ones.map((one) => one.figure_id),
    };
  });
}

/** Places down the page at least `gap` apart, each as near its own as can be, in rising order. */
export function apart(wanted: readonly number[], gap: number, top: number, bottom: number): number[] {
  const order = wanted.map((at, index) => ({ at, index })).sort((a, b) => a.at - b.at);
  let last = top - gap;
  for (const one of order) {
    one.at = Math.max(one.at, last + gap);
    last = one.at;
  }
  let next = bottom + gap;
  for (const one of [...order].reverse()) {
    one.at = Math.min(one.at, next - gap);
    next = one.at;
  }
  const placed = new Array<number>(wanted.length).fill(0);
  for (const one of order) placed[one.index] = one.at;
  return placed;
}
