import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import type { ShoppingList, StockState } from "../../api/types";
import { lay, OUTCOME, part, SCENE, serve } from "../../testing/desk";
import { BenchInspector } from "./bench-inspector";
import { areaOf } from "./mixes";
import { withAmount } from "./stock";

const LINE = {
  key: "gloves",
  name: "nitrile gloves",
  need: 10,
  have: 3,
  missing: 7,
  unit: "pairs",
  cost: 2.8,
  old: null,
} as const;
const LIST: ShoppingList = {
  currency: "NOK",
  shopping: { lines: [LINE], kits: [], buy_cost: 2.8, piece_cost: 0, unpriced: ["mixing cups"] },
};
const SHELF: StockState = { currency: "NOK", held: [], kits: [], counted_at: null, used: {}, refused: [] };

function answers() {
  return serve({
    "GET /api/scenes/7/runs": [],
    "GET /api/scenes/7/shopping": LIST,
    "GET /api/stock": SHELF,
    "PUT /api/stock": SHELF,
    "GET /api/recipes": [
      { id: "seal_coat", name: "seal coat", by: "resin", thickness_mm: 0.3, over: "bed", note: "thin", parts: [] },
    ],
    "POST /api/recipes/scaled": {
      recipe_id: "seal_coat",
      volume_ml: 12,
      mass_g: 13,
      amounts: [
        { name: "part A", volume_ml: 8, mass_g: 9 },
        { name: "part B", volume_ml: 4, mass_g: 4 },
      ],
    },
  });
}

describe("the bench from the desk", () => {
  it("offers a run and a rehearsal, and goes on with one that is open", async () => {
    serve({
      "GET /api/scenes/7/runs": [
        { id: "r1", rehearsal: false, started_at: "2027-03-05T09:00:00Z", ended_at: null, events_count: 12 },
      ],
    });
    lay(<BenchInspector />);
    expect(await screen.findByRole("link", { name: "go on with the run" })).toHaveAttribute("href", "/runs/r1");
    expect(screen.getByRole("button", { name: "rehearse it first" })).toBeEnabled();
    expect(screen.getByText("12 entered")).toBeInTheDocument();
  });
  it("begins another where one that is open cannot be read any more", async () => {
    serve({
      "GET /api/scenes/7/runs": [
        {
          id: "r1",
          rehearsal: false,
          started_at: "2027-03-05T09:00:00Z",
          ended_at: null,
          events_count: 12,
          refused: "What is kept of it is damaged.",
        },
      ],
    });
    lay(<BenchInspector />);
    expect(await screen.findByText(/It cannot be gone on with\. What is kept of it is damaged\./)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "begin the run" })).toBeEnabled();
  });
  it("has one bottle of each colour for every pour", async () => {
    answers();
    lay(<BenchInspector />);
    await part("cups");
    for (const stock of OUTCOME.stocks) expect(screen.getByText(stock.words)).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "as PDF" })).toHaveAttribute("href", "/api/scenes/7/sheet.pdf");
  });
  it("counts what is there and says what is to be bought", async () => {
    const questions = answers();
    lay(<BenchInspector />);
    await part("stock");
    const there = await screen.findByLabelText("nitrile gloves, there");
    const row = there.closest("tr");
    expect(within(row as HTMLElement).getByText("7 pairs")).toBeInTheDocument();
    expect(screen.getByText("To buy: 2.80 NOK. In the piece: 0.00 NOK.")).toBeInTheDocument();
    await userEvent.clear(there);
    await userEvent.type(there, "12");
    await userEvent.tab();
    const written = questions.find((one) => one.path === "PUT /api/stock")?.body as StockState;
    expect(written.held).toEqual([{ key: "gloves", name: "nitrile gloves", amount: 12, unit: "pairs" }]);
  });
  it("tells what of the shelf is left out until it is counted anew", async () => {
    const shelf = {
      ...SHELF,
      refused: ["old ink on the shelf is no longer taken, and is left out: Amount has to be 0."],
    };
    const questions = serve({
      "GET /api/scenes/7/runs": [],
      "GET /api/scenes/7/shopping": LIST,
      "GET /api/stock": shelf,
      "PUT /api/stock": SHELF,
    });
    lay(<BenchInspector />);
    await part("stock");
    expect(await screen.findByText(/old ink on the shelf is no longer taken/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "count it as it stands below" }));
    const written = questions.find((one) => one.path === "PUT /api/stock")?.body;
    expect(written).toEqual({ currency: "NOK", held: [], kits: [] });
  });
  it("scales a mix to the bed", async () => {
    const questions = answers();
    lay(<BenchInspector />);
    await part("mixes");
    expect(await screen.findByText("8 ml, 9 g")).toBeInTheDocument();
    const asked = questions.find((one) => one.path === "POST /api/recipes/scaled")?.body as { area_cm2: number };
    expect(asked.area_cm2).toBeCloseTo(OUTCOME.filling.bed_area_cm2);
  });
  it("says when nothing has happened yet", async () => {
    answers();
    lay(<BenchInspector />);
    await part("happened");
    expect(await screen.findByText(/Nothing has been entered at the bench yet/)).toBeInTheDocument();
  });
});

describe("the shelf", () => {
  it("changes one thing and leaves the rest", () => {
    const held = [
      { key: "gloves", name: "gloves", amount: 3, unit: "pairs", price: 0.4 },
      { key: "cups", name: "cups", amount: 9, unit: "pieces" },
    ];
    const changed = withAmount({ ...SHELF, held } as StockState, LINE, 20);
    expect(changed.held).toEqual([{ ...held[0], amount: 20 }, held[1]]);
  });
});

describe("where a mix goes", () => {
  const recipe = { id: "x", name: "x", by: "volume", thickness_mm: 1, note: "" } as const;
  it.each([
    ["bed", OUTCOME.filling.bed_area_cm2],
    ["surface", OUTCOME.pours.at(-1)?.fill.free_surface_cm2],
    ["faces", (OUTCOME.dam.perimeter_mm * SCENE.tank.fill_height_mm) / 100],
    ["none", 50],
  ] as const)("over the %s", (over, area) => {
    expect(areaOf({ ...recipe, over, parts: [] }, SCENE, OUTCOME)).toBeCloseTo(area ?? 0);
  });
});
