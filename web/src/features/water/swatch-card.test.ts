import { describe, expect, it } from "vitest";

import type { PaintAnswer } from "../../api/types";
import { swatchCard } from "./swatch-card";

const answer: PaintAnswer = {
  figure_id: "pike",
  wished_srgb: "#c03020",
  paint_srgb: "#f63d36",
  reads_srgb: "#993723",
  gap_de00: 7.6,
  possible: "no paint at all",
  white_reads_srgb: "#8cd2b1",
  sentence: "",
  places: [],
  zones: [],
};

describe("swatchCard", () => {
  it("holds the four colours and the name, escaped", () => {
    const card = swatchCard("pike <&> co", answer);
    for (const colour of ["#c03020", "#f63d36", "#993723", "#8cd2b1"]) expect(card).toContain(`fill="${colour}"`);
    expect(card).toContain("pike &lt;&amp;&gt; co");
    expect(new DOMParser().parseFromString(card, "image/svg+xml").querySelector("parsererror")).toBeNull();
  });
});
