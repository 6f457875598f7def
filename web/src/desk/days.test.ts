import { describe, expect, it } from "vitest";

import { days, movedWait } from "./days";

describe("days", () => {
  it("names each midnight of the span", () => {
    expect(days("2027-03-05T09:00:00", 50)).toEqual([
      { at_h: 0, word: "Fri 5" },
      { at_h: 15, word: "Sat 6" },
      { at_h: 39, word: "Sun 7" },
    ]);
  });
  it("goes over the end of a month", () => {
    expect(days("2027-02-28T22:00:00", 10).map((day) => day.word)).toEqual(["Sun 28", "Mon 1"]);
  });
});

describe("movedWait", () => {
  it.each([
    [26, 4.3, 30.5],
    [26, -40, 0],
    [700, 100, 720],
  ])("%d moved by %d", (wait, by, wanted) => {
    expect(movedWait(wait, by)).toBe(wanted);
  });
});
