import { describe, expect, it } from "vitest";

import { apart, between, nearest, span, tankScale } from "./scales";

describe("tankScale", () => {
  it("fits section and plan one above the other", () => {
    expect(tankScale({ width: 400, height: 500 }, { width_mm: 180, behind_mm: 110, fill_mm: 120 })).toBeCloseTo(
      500 / 230,
    );
    expect(tankScale({ width: 300, height: 900 }, { width_mm: 180, behind_mm: 110, fill_mm: 120 })).toBeCloseTo(
      300 / 180,
    );
  });
  it("never turns the sheet inside out", () => {
    expect(tankScale({ width: -5, height: 0 }, { width_mm: 180, behind_mm: 110, fill_mm: 120 })).toBe(0.2);
  });
});

describe("nearest and between", () => {
  it("finds the nearest entry", () => {
    expect(nearest([1, 5, 9], 6)).toBe(1);
    expect(nearest([], 6)).toBe(-1);
  });
  it.each([
    [-1, 10],
    [0, 10],
    [5, 15],
    [10, 20],
    [15, 20],
    [25, null],
  ])("reads between at %d", (at, wanted) => {
    expect(between([0, 10, 20, 30], [10, 20, 20, null], at)).toBe(wanted);
  });
  it("is null where there is nothing", () => {
    expect(between([], [], 3)).toBeNull();
    expect(between([0, 10], [null, 7], 5)).toBe(7);
  });
});

describe("span", () => {
  it("covers what must be shown and what is there", () => {
    expect(span([3, null, 99], [20, 60])).toEqual([3, 99]);
    expect(span([], [20, 60])).toEqual([20, 60]);
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
    sorted.slice(1).forEach((one, index) => {
      expect(one - (sorted[index] ?? 0)).toBeGreaterThanOrEqual(20);
    });
  });
  it("keeps the order of what it was given", () => {
    expect(apart([50, 40], 20, 0, 100)).toEqual([60, 40]);
  });
});
