import { describe, expect, it } from "vitest";

import type { Glance, SceneRow } from "../../api/types";
import { METRIC } from "../../testing/desk";
import { nextHour } from "./next-hour";
import { stateWords } from "./piece";

const GLANCE: Glance = {
  scale: 48,
  inside_mm: [180, 110, 120],
  pours_count: 4,
  resin_ml: 1600,
  mix_g: 1800,
  first_pour_at: "2027-03-05T09:00",
  demould_at: "2027-03-10T23:49",
  counts: { stop: 0, watch: 1, note: 0 },
  worst: null,
  worst_grade: null,
  units: METRIC,
  state: "planning",
  next_pour: null,
  opens_at: null,
};
const SCENE: SceneRow = {
  id: 3,
  name: "Wagon",
  revision: 1,
  changed_at: "2027-03-01T09:00:00Z",
  owner: "keeper",
  may: "own",
};
const pouring: Glance = { ...GLANCE, state: "pouring", next_pour: 3, opens_at: "2027-03-07T07:00" };

describe("how far a piece is", () => {
  it.each([
    [GLANCE, /^Planning/],
    [pouring, /^Pouring: pour 3 opens .*7:00/],
    [{ ...pouring, opens_at: null }, /pour 3 is next/],
    [{ ...GLANCE, state: "waiting" as const }, /^Waiting to come out/],
    [{ ...GLANCE, state: "finished" as const }, /^Finished/],
  ])("is said in words", (glance, words) => {
    expect(stateWords(glance)).toMatch(words);
  });
});

describe("the next hour", () => {
  const at = (glance: Glance, now: string) => nextHour([SCENE], new Map([[3, glance]]), now)?.words;
  it.each([
    [GLANCE, "2027-03-01T00:00", "first pour"],
    [GLANCE, "2027-03-06T00:00", "comes out of its dam"],
    [GLANCE, "2027-04-01T00:00", undefined],
    [pouring, "2027-03-06T00:00", "pour 3 opens"],
    [{ ...GLANCE, state: "waiting" as const }, "2027-03-01T00:00", "comes out of its dam"],
    [{ ...GLANCE, state: "finished" as const }, "2027-03-01T00:00", undefined],
  ])("is of what is still to be done", (glance, now, words) => {
    expect(at(glance, now)).toBe(words);
  });
});
