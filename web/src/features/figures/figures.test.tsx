import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import type { Figure } from "../../api/types";
import { lay, OUTCOME, part, SCENE, serve, SHELF, US } from "../../testing/desk";
import { AddFigure } from "./add-figure";
import { AirHelp } from "./air-help";
import { FiguresInspector } from "./figures-inspector";
import { Holding } from "./holding";
import { Schools } from "./schools";

const pike = SCENE.figures?.find((one) => one.id === "pike") as Figure;
const told = OUTCOME.figures.find((one) => one.figure_id === "pike");
const type = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

describe("FiguresInspector", () => {
  const inspector = (laid = {}) => {
    serve({ "GET /api/library": SHELF });
    return lay(<FiguresInspector />, { figureId: "pike", ...laid });
  };
  it("says how a figure behaves by its code", () => {
    inspector();
    expect(screen.getByText(told?.behaves === "sinks" ? "sinks" : "floats", { selector: "dt" })).toBeInTheDocument();
  });
  it.each([
    ["from the left", "50", { place: { x_mm: 50 } }],
    ["depth of its foot", "100", { place: { height_mm: 20 } }],
    ["weighed", "3", { mass_g: 3 }],
    ["turned", "90", { turn_deg: 90 }],
  ])("takes %s", async (label, text, change) => {
    const { keep } = inspector();
    if (label === "weighed") await part("made of");
    await type(label, text);
    await waitFor(() => {
      expect(keep).toHaveBeenCalled();
    });
    expect(keep.mock.calls[0]?.[0].figures?.find((one) => one.id === "pike")).toMatchObject(change);
  });
  it("asks the core for a shoal, and to take a figure out", async () => {
    const { change } = inspector();
    await userEvent.click(screen.getByRole("button", { name: "copy as shoal" }));
    await userEvent.click(screen.getByRole("button", { name: "take out" }));
    expect(change.mock.calls).toEqual([
      [{ kind: "shoal", figure_id: "pike", count: 4, spread_mm: 16 }],
      [{ kind: "take_figure_out", figure_id: "pike" }],
    ]);
  });
  it("offers what the shelf says a figure may be made of", async () => {
    inspector();
    await part("made of");
    await waitFor(() => {
      const options = within(screen.getByLabelText("made of")).getAllByRole("option");
      expect(options.length).toBe(SHELF.uses.figure?.length);
    });
  });
  it("weighs in ounces and lifts in ounces-force for who reads so", () => {
    inspector({ units: US });
    expect(screen.queryByText(/\d (mm|g|gf|ml)\b/, { selector: "dd" })).toBeNull();
    expect(screen.getByText(/ozf$/, { selector: "button" })).toBeInTheDocument();
  });
  it("begins with nothing", () => {
    inspector({ scene: { ...SCENE, figures: [] } });
    expect(screen.getByRole("heading", { name: "No figures yet" })).toBeInTheDocument();
  });
});

describe("Holding", () => {
  it("tells every way with what the core says of it", () => {
    lay(<Holding figure={pike} set={() => undefined} />);
    const ways = screen.getAllByRole("radio");
    expect(ways).toHaveLength(told?.ways.length ?? 0);
    told?.ways.forEach((way, at) => {
      expect(ways[at]).toHaveTextContent(way.sentence);
      expect(ways[at]).toHaveTextContent(way.holds ? "holds" : "does not");
    });
  });
  it("takes another way and its measure", async () => {
    const changes: unknown[] = [];
    lay(<Holding figure={pike} set={(change) => changes.push(change)} />);
    await userEvent.click(screen.getByRole("radio", { name: /spot of hot glue/ }));
    await type("stem", "4");
    await waitFor(() => {
      expect(changes).toHaveLength(2);
    });
    expect(changes).toMatchObject([{ holding: "glue_spot" }, { hold: { stem_mm: 4 } }]);
  });
});

describe("AirHelp", () => {
  it("asks what helps where there is air, and tries it", async () => {
    const remedy = { label: "brush it full first", digest: "d", edits: [] };
    serve({ "POST /api/air-remedies": [remedy] });
    const figures = OUTCOME.figures.map((one) => (one.figure_id === "pike" ? { ...one, trapped_ml: 0.8 } : one));
    const { tryOut } = lay(<AirHelp figure={pike} set={() => undefined} />, {
      document: { outcome: { ...OUTCOME, figures } },
    });
    expect(screen.getByText("0.8 ml")).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "what helps?" }));
    await userEvent.click(await screen.findByRole("button", { name: "Try: brush it full first" }));
    expect(tryOut).toHaveBeenCalledWith(remedy);
  });
  it("is silent where there is none", () => {
    lay(<AirHelp figure={pike} set={() => undefined} />);
    expect(screen.queryByRole("button", { name: "what helps?" })).toBeNull();
  });
});

describe("AddFigure and Schools", () => {
  it("adds what the core makes and chooses it", async () => {
    const made = { ...pike, id: "eel-1", name: "eel" };
    serve({ "POST /api/figures/new": { figure: made } });
    const { keep, chooseFigure } = lay(<AddFigure />);
    await userEvent.click(screen.getByRole("button", { name: "eel" }));
    await waitFor(() => {
      expect(chooseFigure).toHaveBeenCalledWith("eel-1");
    });
    expect(keep.mock.calls[0]?.[0].figures?.at(-1)).toEqual(made);
  });
  it("says a mesh that is refused and adds nothing", async () => {
    serve({});
    const { keep } = lay(<AddFigure />);
    await userEvent.upload(screen.getByLabelText("Mesh of a figure"), new File(["solid"], "crate.stl"));
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing was added.");
    expect(keep).not.toHaveBeenCalled();
  });
  it("sets both schools side by side", async () => {
    const school = {
      name: "staged",
      pours_count: 4,
      hottest_c: 66,
      runs_away: false,
      days_d: 5.6,
      seams_count: 2,
      held_count: 3,
      unheld_count: 0,
      stops: [],
    };
    serve({
      "POST /api/schools": [
        school,
        { ...school, pours_count: 1, hottest_c: 120, runs_away: true, stops: ["Runs away"] },
      ],
    });
    lay(<Schools />);
    await userEvent.click(screen.getByRole("button", { name: /staged or held/ }));
    expect(await screen.findByRole("row", { name: "pours 4 1" })).toBeInTheDocument();
    expect(screen.getByRole("row", { name: "hottest 66 °C runs away" })).toBeInTheDocument();
  });
});
