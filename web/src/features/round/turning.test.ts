import { describe, expect, it } from "vitest";

import { eyeAt, FIRST, keyed, moved } from "./turning";

describe("the eye about the piece", () => {
  it("is turned by keys and comes home", () => {
    expect(keyed(FIRST, "ArrowRight")?.turn_deg).toBe(34);
    expect(keyed(FIRST, "ArrowUp")?.lift_deg).toBe(30);
    expect(keyed(moved(FIRST, 50, 5), "Home")).toEqual(FIRST);
    expect(keyed(FIRST, "q")).toBeNull();
  });
  it("goes round without end and not through the poles", () => {
    expect(moved({ ...FIRST, turn_deg: 170 }, 20, 0).turn_deg).toBe(-170);
    expect(moved(FIRST, 0, 500).lift_deg).toBe(88);
    expect(moved(FIRST, 0, 0, 0.01).away).toBe(0.9);
  });
  it("stands before the glass at no turn", () => {
    const [x, y, z] = eyeAt({ turn_deg: 0, lift_deg: 0, away: 2 }, 1);
    expect([x, y]).toEqual([0, 0]);
    expect(z).toBe(2);
  });
});
