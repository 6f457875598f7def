import { describe, expect, it } from "vitest";

import { apart, sightRows } from "./sights";

const sight = (name: string, top: number, contrast: number, step = 20) => ({
  figure_id: name.replace(" ", "-"), name, top_depth_mm: top, bottom_depth_mm: top + 4, behind_mm: 20,
  contrast_fraction: contrast, difference_de00: step, reads_srgb: "#808080",
});

describe("sightRows", () => {
  it("puts a shoal in one row with its least seen fish", () => {
    const rows = sightRows([sight("perch 1", 20, 0.8), sight("perch 2", 30, 0.6), sight("pike", 70, 0.5, 2)]);
    expect(rows).toEqual([
      { name: "2 perch", depth_mm: 27, contrast_fraction: 0.6, lost: false, figureIds: ["perch-1", "perch-2"] },
      { name: "pike", depth_mm: 72, contrast_fraction: 0.5, lost: true, figureIds: ["pike"] },
    ]);
  });
});

describe("apart", () => {
  it("leaves what has room alone", () => {
    expect(apart([10, 60], 20, 0, 100)).toEqual([10, 60]);
  });
  it("parts eight labels at one depth without leaving the plot", () => {
    const placed = apart(new Array<number>(5).fill(95), 20, 0, 100);
    const sorted = [...placed].sort((a, b) => a - b);
    expect(sorted.at(-1)).toBeLessThanOrEqual(100);
    sorted.slice(1).forEach((one, index) => { expect(one - (sorted[index] ?? 0)).toBeGreaterThanOrEqual(20); });
  });
  it("keeps the order of what it was given", () => {
    expect(apart([50, 40], 20, 0, 100)).toEqual([60, 40]);
  });
});
