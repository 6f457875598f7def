import { describe, expect, it } from "vitest";

import type { Scene } from "../../api/types";
import { lineRange, snapped, splitPour, withLine, withoutPour, withRemedy } from "./edits";

const pour = (n: number, top: number) => ({ id: `pour-${n}`, top_depth_mm: top, resin_id: "deep", mix_c: 23, wait_h: n === 1 ? 0 : 26, doses: [], inclusions: [] });
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

describe("pours", () => {
  it("split at half their depth under a new name", () => {
    const split = splitPour(scene, 2);
    expect(lines(split)).toEqual([92, 66, 40, 0]);
    expect(split.pours.map((one) => one.id)).toEqual(["pour-1", "pour-4", "pour-2", "pour-3"]);
    expect(lines(scene)).toEqual([92, 40, 0]);
  });
  it("give the upper half of the first pour a wait", () => {
    expect(splitPour(scene, 1).pours.map((one) => one.wait_h)).toEqual([0, 30, 26, 26]);
  });
  it("fall together when one is taken out, and the last always ends at the fill line", () => {
    expect(lines(withoutPour(scene, 2))).toEqual([92, 0]);
    expect(lines(withoutPour(scene, 3))).toEqual([92, 0]);
    expect(lines(withoutPour({ ...scene, pours: [pour(1, 0)] }, 1))).toEqual([0]);
  });
});

describe("remedies", () => {
  it("are applied to a copy", () => {
    const healed = withRemedy(scene, { label: "seal", edits: [{ op: "replace", path: "/bed/sealed", value: true }] });
    expect(healed.bed.sealed).toBe(true);
    expect(scene.bed.sealed).toBe(false);
  });
});
