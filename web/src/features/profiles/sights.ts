import type { Outcome, Scene } from "../../api/types";
import { figureName } from "../../desk/names";

export interface SightRow {
  name: string;
  depth_mm: number;
  contrast_fraction: number;
  lost: boolean;
  figureIds: string[];
}

const LOST_DE00 = 3;

/** Figures of one kind in one row ("perch 1", "perch 2" ... as "5 perch"), least seen first. */
export function sightRows(sights: Outcome["sights"], scene: Scene): SightRow[] {
  const kinds = new Map<string, Outcome["sights"]>();
  for (const sight of sights) {
    const kind = figureName(scene, sight.figure_id).replace(/\s+\d+$/, "");
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
