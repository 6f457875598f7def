import { describe, expect, it } from "vitest";

import { depthsOver, planPath, sectionPath, shoalTint } from "./page";

const frame = { x0: 100, top: 50, bottom: 290, scale: 2, width_mm: 180, fill_mm: 120 };

describe("paths", () => {
  it("draw heights upward from the floor and distances away from the glass", () => {
    expect(
      sectionPath(
        [
          [0, 0],
          [10, 120],
        ],
        frame,
      ),
    ).toBe("M100.0 290.0L120.0 50.0");
    expect(
      planPath(
        [
          [0, 0],
          [180, 110],
        ],
        frame,
      ),
    ).toBe("M100.0 290.0L460.0 70.0");
  });
  it("are empty for nothing", () => {
    expect(sectionPath([], frame)).toBe("");
  });
});

describe("shoalTint", () => {
  it("goes from buff to deep blue and stays there", () => {
    expect(shoalTint(-1)).toBe("rgb(228 210 162)");
    expect(shoalTint(0.35)).toBe("rgb(186 214 204)");
    expect(shoalTint(2)).toBe("rgb(95 148 170)");
  });
});

describe("depths over a limit", () => {
  const depth = [0, 10, 20, 30, 40];
  it.each([
    [[0, 0, 0, 0, 0], []],
    [[3, 3, 3, 3, 3], [[0, 40]]],
    [
      [0, 3, 4, 0, 5],
      [
        [10, 20],
        [40, 40],
      ],
    ],
    [
      [3, 0, 3, 3, 0],
      [
        [0, 0],
        [20, 30],
      ],
    ],
  ])("%j gives %j", (values, ranges) => {
    expect(depthsOver(depth, values, 2)).toEqual(ranges);
  });
});
