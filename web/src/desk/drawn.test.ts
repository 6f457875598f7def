import { describe, expect, it } from "vitest";

import type { Chances } from "../api/types";
import { OUTCOME } from "../testing/desk";
import { chanceOf, peakBand, withDrawnWindows } from "./drawn";

const pour = OUTCOME.pours[1];
const peak = pour?.heat.cure?.peak_c ?? 0;
const quick = pour?.heat.peak_band ?? { low_c: 0, high_c: 0 };
const DRAWN: Chances = {
  draws_count: 128,
  trouble_fraction: 0.1,
  pours: [
    {
      pour_number: 2,
      peak_low_c: peak - (peak - quick.low_c) / 2,
      peak_high_c: peak + (quick.high_c - peak) / 2,
      opens_low_h: 13.4,
      opens_high_h: 23.3,
      closes_low_h: 27,
      closes_high_h: null,
      bonds_fraction: 0.96,
    },
  ],
  troubles: [{ code: "too_hot", pour_number: 2, words: "too hot", chance_fraction: 0.07 }],
};

describe("what was drawn", () => {
  it("stands in place of the quick windows of its pour", () => {
    if (!pour) throw new Error("no pour");
    const spans = withDrawnWindows(pour, DRAWN).heat.spans;
    expect(spans?.tack_opens).toEqual({ early_h: 13.4, late_h: 23.3 });
    expect(spans?.tack_closes).toEqual({ early_h: 27, late_h: null });
    expect(spans?.hard).toEqual(pour.heat.spans?.hard);
    expect(withDrawnWindows(pour, null)).toBe(pour);
  });
  it("draws the band of the peak in, in its own pour and no other", () => {
    const { heat } = OUTCOME;
    const band = peakBand(OUTCOME, DRAWN);
    heat.depth_mm.forEach((depth, at) => {
      const inside = depth > (pour?.top_depth_mm ?? 0) && depth < (pour?.bottom_depth_mm ?? 0);
      const whole = (heat.high_c[at] ?? 0) - (heat.peak_c[at] ?? 0);
      expect((band.high_c[at] ?? 0) - (heat.peak_c[at] ?? 0)).toBeCloseTo(inside ? whole / 2 : whole, 4);
    });
    expect(peakBand(OUTCOME, null).low_c).toBe(heat.low_c);
  });
  it("is told of a flag by its code and pour", () => {
    const [flag] = OUTCOME.flags;
    if (!flag) throw new Error("no flag");
    expect(chanceOf({ ...flag, code: "too_hot", pour_number: 2 }, DRAWN)).toBe(0.07);
    expect(chanceOf({ ...flag, code: "too_hot", pour_number: 3 }, DRAWN)).toBeNull();
    expect(chanceOf(flag, null)).toBeNull();
  });
});
