import { describe, expect, it } from "vitest";

import { solved, warpTo } from "./warp";

/** Where a transform brings a point. */
function brought(transform: string, x: number, y: number): [number, number] {
  const m = transform.slice("matrix3d(".length, -1).split(",").map(Number);
  const at = (row: number) => (m[row] ?? 0) * x + (m[row + 4] ?? 0) * y + (m[row + 12] ?? 0);
  return [at(0) / at(3), at(1) / at(3)];
}

describe("a picture laid over a photograph", () => {
  it("comes to its four corners, however the camera stood", () => {
    const corners = [
      [12, 8],
      [180, 20],
      [170, 130],
      [5, 110],
    ] as const;
    const transform = warpTo(200, 120, corners) ?? "";
    const from = [
      [0, 0],
      [200, 0],
      [200, 120],
      [0, 120],
    ] as const;
    from.forEach(([x, y], at) => {
      const [u, v] = brought(transform, x, y);
      expect(u).toBeCloseTo(corners[at]?.[0] ?? 0, 6);
      expect(v).toBeCloseTo(corners[at]?.[1] ?? 0, 6);
    });
  });
  it("is none where corners lie on a line", () => {
    const flat = [
      [0, 0],
      [1, 0],
      [2, 0],
      [3, 0],
    ] as const;
    expect(warpTo(10, 10, flat)).toBeNull();
  });
  it("solves a system with a nought on its diagonal", () => {
    expect(
      solved(
        [
          [0, 2],
          [3, 0],
        ],
        [4, 9],
      ),
    ).toEqual([3, 2]);
  });
});
