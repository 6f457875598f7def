import { describe, expect, it } from "vitest";

import type { Tank } from "../../api/types";
import { innerOf, shownSize } from "./sizes";

const tank = { wall: { thickness_mm: 3 }, cutting: { film_mm: 0.1 } } as unknown as Tank;

describe("sizes", () => {
  it("are entered by inside, outside, or the place the piece stands in", () => {
    expect(innerOf(180, "inside", tank)).toBe(180);
    expect(innerOf(186.2, "outside", tank)).toBe(180);
    expect(innerOf(188.2, "place", tank)).toBe(180);
  });
  it("come back as they were entered", () => {
    for (const by of ["inside", "outside", "place"] as const)
      expect(shownSize(innerOf(200, by, tank), by, tank)).toBe(200);
  });
});
