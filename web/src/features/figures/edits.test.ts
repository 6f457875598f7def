import { describe, expect, it } from "vitest";

import type { Figure, Scene } from "../../api/types";
import { copied } from "./edits";

const perch = { id: "perch-1", name: "perch 1", turn_deg: 0, holding: "staged", place: { x_mm: 5, behind_mm: 50, height_mm: 80 } } as unknown as Figure;
const scene = { tank: { inner_width_mm: 100, inner_behind_mm: 80 }, figures: [perch, { ...perch, id: "perch-3" }] } as unknown as Scene;

describe("copied", () => {
  it("takes free ids and stays inside the tank", () => {
    const made = copied(scene, perch, 4);
    expect(made.map((one) => one.id)).toEqual(["perch-2", "perch-4", "perch-5", "perch-6"]);
    for (const one of made) {
      expect(one.place.x_mm).toBeGreaterThanOrEqual(2);
      expect(one.place.behind_mm).toBeLessThanOrEqual(78);
    }
  });
  it("keeps a staged shoal on its layer", () => {
    expect(new Set(copied(scene, perch, 3).map((one) => one.place.height_mm))).toEqual(new Set([80]));
    expect(new Set(copied(scene, { ...perch, holding: "stem" }, 3).map((one) => one.place.height_mm)).size).toBeGreaterThan(1);
  });
});
