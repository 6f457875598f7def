import { describe, expect, it } from "vitest";

import type { HeatPlane } from "../../api/types";
import { along, isotherms, steps, warmth } from "./isotherms";

const plane: HeatPlane = {
  at_h: 1,
  behind_mm: 50,
  x_mm: [5, 15, 25, 35],
  depth_mm: [2, 8, 20],
  temperature_c: [
    [null, null, null, null],
    [20, 30, 30, 20],
    [20, 42, 41, 20],
  ],
  degree_of_cure: [],
};

describe("isotherms", () => {
  it("are at round temperatures between the coolest and the hottest", () => {
    expect(steps(20.3, 42)).toEqual([25, 30, 35, 40]);
    expect(steps(20, 160)).toEqual([20, 40, 60, 80, 100, 120, 140, 160]);
    expect(isotherms(plane).map((one) => one.at_c)).toEqual([25, 30, 35, 40]);
  });
  it("lie in the tank's own millimetres", () => {
    for (const one of isotherms(plane)) {
      for (const [x, depth] of one.rings.flat()) {
        expect(x).toBeGreaterThanOrEqual(5);
        expect(x).toBeLessThanOrEqual(35);
        expect(depth).toBeGreaterThanOrEqual(2);
      }
    }
  });
  it("know nothing before the pour", () => {
    expect(isotherms({ ...plane, temperature_c: [[null], [null]] })).toEqual([]);
  });
});

describe("along", () => {
  it("is linear between middles and held at the ends", () => {
    expect(along([5, 15, 35], 0.5)).toBe(5);
    expect(along([5, 15, 35], 2)).toBe(25);
    expect(along([5, 15, 35], 9)).toBe(35);
  });
});

describe("warmth", () => {
  it("runs from nothing to three quarters", () => {
    expect(warmth(20, 20, 60)).toBe(0);
    expect(warmth(60, 20, 60)).toBe(0.75);
  });
});
