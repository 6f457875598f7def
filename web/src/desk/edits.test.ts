import { describe, expect, it } from "vitest";

import type { Scene } from "../api/types";
import { lineRange, snapped, withLine } from "./edits";

const pour = (n: number, top: number) => ({
  id: `pour-${n}`,
  top_depth_mm: top,
  resin_id: "deep",
  mix_c: 23,
  wait_h: n === 1 ? 0 : 26,
  doses: [],
  inclusions: [],
});
const scene = {
  tank: { fill_height_mm: 120 },
  pours: [pour(1, 92), pour(2, 40), pour(3, 0)],
  bed: { sealed: false },
} as unknown as Scene;
const lines = (one: Scene) => one.pours.map((each) => each.top_depth_mm);

describe("layer lines", () => {
  it("stay between their neighbours", () => {
    expect(lineRange(scene, 2)).toEqual([2, 90]);
    expect(lineRange(scene, 1)).toEqual([42, 118]);
    expect(lines(withLine(scene, 2, 300))).toEqual([92, 90, 0]);
    expect(lines(withLine(scene, 2, -10))).toEqual([92, 2, 0]);
    expect(lines(withLine(scene, 2, 47.3))).toEqual([92, 47.5, 0]);
  });
  it("snap to the foot of a figure that is near", () => {
    expect(snapped(40.9, [18, 40])).toBe(40);
    expect(snapped(43, [18, 40])).toBe(43);
  });
  it("leave the fill line where it is", () => {
    expect(withLine(scene, 3, 20)).toBe(scene);
  });
});
