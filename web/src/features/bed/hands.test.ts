import { describe, expect, it } from "vitest";

import { type Ground, heightAt, touched, weight } from "./hands";

const flat = (height: number): Ground => ({
  heights: Array.from({ length: 11 }, () => Array.from({ length: 11 }, () => height)),
  width_mm: 100,
  behind_mm: 100,
  most_mm: 90,
});
const middle = { x_mm: 50, behind_mm: 50 };
const stroke = { wide_mm: 40, each_mm: 3 } as const;

describe("weight", () => {
  it("falls from 1 in the middle to 0 at the rim", () => {
    expect(weight(0, 20)).toBe(1);
    expect(weight(10, 20)).toBe(0);
    expect(weight(5, 20)).toBeGreaterThan(weight(7, 20));
  });
});

describe("hands", () => {
  it("raise and lower by their strength in the middle, nothing beyond the rim", () => {
    const raised = touched(flat(20), { ...stroke, hand: "build up" }, middle, middle);
    expect(raised[5]?.[5]).toBe(23);
    expect(raised[5]?.[9]).toBe(20);
    expect(touched(flat(20), { ...stroke, hand: "carve off" }, middle, middle)[5]?.[5]).toBe(17);
  });
  it("stay between floor and rim", () => {
    expect(touched(flat(1), { ...stroke, hand: "carve off" }, middle, middle)[5]?.[5]).toBe(0);
    expect(touched(flat(89), { ...stroke, hand: "build up" }, middle, middle)[5]?.[5]).toBe(90);
  });
  it("smooth a spike and leave a plane alone", () => {
    const spiked = flat(20);
    const heights = spiked.heights.map((row) => [...row]);
    (heights[5] as number[])[5] = 40;
    const smoothed = touched({ ...spiked, heights }, { ...stroke, hand: "rub smooth" }, middle, middle);
    expect(smoothed[5]?.[5]).toBeLessThan(32);
    const plane = flat(0).heights.map((row, j) => row.map((_, i) => 10 + 3 * i + 2 * j));
    const again = touched({ ...flat(0), heights: plane }, { ...stroke, hand: "rub smooth" }, middle, middle);
    expect(again[5]?.[5]).toBeCloseTo(plane[5]?.[5] ?? 0, 1);
  });
  it("terrace draws heights to steps", () => {
    const stepped = touched(flat(22), { ...stroke, hand: "step", each_mm: 8 }, middle, middle);
    expect(stepped[5]?.[5]).toBeGreaterThan(22);
    expect(stepped[5]?.[5]).toBeLessThanOrEqual(24);
  });
  it("slope runs from where the stroke began to where it is", () => {
    const plane = { ...flat(0), heights: flat(0).heights.map((row) => row.map((_, i) => (i < 5 ? 10 : 50))) };
    const from = { x_mm: 20, behind_mm: 50 };
    const to = { x_mm: 80, behind_mm: 50 };
    const sloped = touched(plane, { ...stroke, hand: "ramp" }, to, from);
    expect(sloped[5]?.[4]).toBeGreaterThan(10);
    expect(sloped[5]?.[6]).toBeLessThan(50);
    expect(sloped[0]).toEqual(plane.heights[0]);
  });
});

describe("the bed's own tools", () => {
  it("a stone stands out where it is pressed, round, and buries nothing higher", () => {
    const pressed = touched(flat(20), { hand: "press a stone in", wide_mm: 40, each_mm: 6 }, middle, middle);
    expect(pressed[5]?.[5]).toBe(26);
    expect(pressed[5]?.[6]).toBeCloseTo(20 + 6 * Math.sqrt(1 - 0.25), 1);
    expect(pressed[5]?.[8]).toBe(20);
    const hill = {
      ...flat(20),
      heights: flat(20).heights.map((row, j) => row.map((_, i) => (i === 6 && j === 5 ? 60 : 20))),
    };
    expect(touched(hill, { hand: "press a stone in", wide_mm: 40, each_mm: 6 }, middle, middle)[5]?.[6]).toBe(60);
  });
  it("gravel lies on some points, no higher than its grains, and the same every time", () => {
    const once = touched(flat(20), { hand: "scatter gravel", wide_mm: 80, each_mm: 4 }, middle, middle);
    expect(touched(flat(20), { hand: "scatter gravel", wide_mm: 80, each_mm: 4 }, middle, middle)).toEqual(once);
    const heights = once.flat();
    expect(Math.max(...heights)).toBeLessThanOrEqual(24);
    expect(heights.filter((one) => one > 20).length).toBeGreaterThan(2);
    expect(Math.min(...heights)).toBe(20);
  });
  it("a wire takes off what stands above its line, and nothing below", () => {
    const ridge = {
      ...flat(0),
      heights: flat(0).heights.map((row) => row.map((_, i) => (i === 5 ? 50 : i < 5 ? 10 : 4))),
    };
    const from = { x_mm: 20, behind_mm: 50 };
    const to = { x_mm: 80, behind_mm: 50 };
    const cut = touched(ridge, { hand: "cut with a wire", wide_mm: 30, each_mm: 1 }, to, from);
    expect(cut[5]?.[5]).toBeCloseTo(7, 1);
    expect(cut[5]?.[7]).toBe(4);
    expect(cut[0]?.[5]).toBe(50);
  });
});

describe("heightAt", () => {
  it("is bilinear and held at the walls", () => {
    const ground: Ground = {
      heights: [
        [0, 10],
        [20, 30],
      ],
      width_mm: 10,
      behind_mm: 10,
      most_mm: 90,
    };
    expect(heightAt(ground, { x_mm: 5, behind_mm: 5 })).toBe(15);
    expect(heightAt(ground, { x_mm: -5, behind_mm: 50 })).toBe(20);
  });
});
