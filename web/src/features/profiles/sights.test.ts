import { describe, expect, it } from "vitest";

import type { Scene } from "../../api/types";
import { sightRows } from "./sights";

const sight = (name: string, top: number, contrast: number, step = 20) => ({
  figure_id: name.replace(" ", "-"),
  top_depth_mm: top,
  bottom_depth_mm: top + 4,
  behind_mm: 20,
  contrast_fraction: contrast,
  difference_de00: step,
  reads_srgb: "#808080",
});

const scene = {
  figures: ["perch 1", "perch 2", "pike"].map((name) => ({ id: name.replace(" ", "-"), name })),
} as unknown as Scene;

describe("sightRows", () => {
  it("puts a shoal in one row with its least seen fish", () => {
    const rows = sightRows([sight("perch 1", 20, 0.8), sight("perch 2", 30, 0.6), sight("pike", 70, 0.5, 2)], scene);
    expect(rows).toEqual([
      { name: "2 perch", depth_mm: 27, contrast_fraction: 0.6, lost: false, figureIds: ["perch-1", "perch-2"] },
      { name: "pike", depth_mm: 72, contrast_fraction: 0.5, lost: true, figureIds: ["pike"] },
    ]);
  });
});
