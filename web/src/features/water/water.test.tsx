import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, part, SCENE, serve, SHELF, US } from "../../testing/desk";
import { Doses } from "./doses";
import { Paint } from "./paint";
import { Spectrum } from "./spectrum";
import { WaterInspector } from "./water-inspector";
import { WishFor } from "./wish";

describe("WaterInspector", () => {
  it("tells each layer line by its code, and the words of the light", async () => {
    serve({ "GET /api/library": SHELF });
    lay(<WaterInspector />);
    await part("light");
    expect(screen.getByText(OUTCOME.water.light_words)).toBeInTheDocument();
    await part("lines");
    const seams = OUTCOME.pours.flatMap((one) => (one.joint.seam ? [one.joint.seam] : []));
    expect(screen.getAllByText(/^\d+\.\d, (invisible|searched for|seen|a band)$/)).toHaveLength(seams.length);
  });
  it("takes where the light comes from", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<WaterInspector />);
    await part("light");
    await userEvent.selectOptions(screen.getByLabelText("comes"), "room");
    expect(keep.mock.calls[0]?.[0].brief.light).toBe("room");
  });
  it("takes a dose", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<WaterInspector />);
    const field = screen.getByLabelText("leaf green ink");
    await userEvent.clear(field);
    await userEvent.type(field, "0.5{Enter}");
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].pours[1]?.doses[0]).toMatchObject({ dose_drops_per_100g: 0.5 });
    });
  });
});

describe("Doses", () => {
  it("tells what is measured, and the test cup as the core says it", () => {
    lay(<Doses />);
    const measured = OUTCOME.pours[1]?.cup.measured;
    for (const one of measured?.doses ?? []) expect(screen.getByText(one.name)).toBeInTheDocument();
    expect(screen.getByText(measured?.cup_words ?? "-")).toBeInTheDocument();
  });
  it("weighs in ounces", () => {
    lay(<Doses />, { units: US });
    expect(screen.getByText(/^for .* oz$/)).toBeInTheDocument();
  });
});

describe("WishFor", () => {
  it("wishes by eye, two colours to begin with", async () => {
    const { keep } = lay(<WishFor />);
    await userEvent.selectOptions(screen.getByLabelText("wish"), "by_eye");
    expect(keep.mock.calls[0]?.[0].wish?.look).toMatchObject({
      kind: "by_eye",
      picks: [{ depth_mm: 5 }, { depth_mm: 102 }],
    });
  });
  it("adds a colour where the gondola hangs", async () => {
    const look = {
      kind: "by_eye" as const,
      picks: [
        { depth_mm: 5, srgb: "#cfe6dc" },
        { depth_mm: 102, srgb: "#3c7a70" },
      ],
    };
    const wish = {
      look,
      most_colourants: 4,
      graded: false,
      keep_figure: null,
      keep_contrast: 0.5,
      most_step_de00: null,
    };
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<WishFor />, { scene: { ...SCENE, wish }, depth_mm: 44 });
    await userEvent.click(screen.getByRole("button", { name: "another colour at the gondola, 44 mm" }));
    expect(keep.mock.calls[0]?.[0].wish?.look).toMatchObject({ picks: [{}, {}, { depth_mm: 44 }] });
  });
  it("tries the doses that the core finds", async () => {
    const wish = {
      look: { kind: "scale_true" as const, water_type: "3C" as const, exaggeration: 1, haze: false },
      most_colourants: 4,
      graded: false,
      keep_figure: null,
      keep_contrast: 0.5,
      most_step_de00: null,
    };
    const solved = {
      pours: [],
      colourants: [],
      front_de00: [1, 2, 3, 4],
      top_de00: [],
      eye_de00: [],
      mean_de00: 2.5,
      worst_de00: 4,
      factor: 1,
      path_de00: 30,
      layers_sharp_count: 9,
      layers_soft_count: 6,
      largest_step_de00: 1.2,
      shown_depth_m: 5.8,
      sentence: "Off by 2.5 in the mean.",
    };
    const remedy = { label: "the doses found", digest: "d", edits: [] };
    serve({ "GET /api/library": SHELF, "POST /api/water/solve": { solved, remedy } });
    const { tryOut } = lay(<WishFor />, { scene: { ...SCENE, wish } });
    await userEvent.click(screen.getByRole("button", { name: /Find the doses/ }));
    expect(await screen.findByText("Off by 2.5 in the mean.")).toBeInTheDocument();
    expect(tryOut).toHaveBeenCalledWith(remedy);
  });
});

describe("Paint and Spectrum", () => {
  it("asks for the paint that reads as wished and moves the figure where one could", async () => {
    const places = [{ words: "half as deep", depth_mm: 30, behind_mm: 20, gap_de00: 2, reads_srgb: "#a08070" }];
    serve({
      "POST /api/water/paint": {
        figure_id: "wagon",
        wished_srgb: "#c03020",
        paint_srgb: "#c03020",
        reads_srgb: "#302010",
        gap_de00: 12,
        possible: "no paint at all",
        white_reads_srgb: "#80a080",
        sentence: "No paint can do it.",
        places,
        zones: [],
      },
    });
    const { keep } = lay(<Paint />);
    await userEvent.click(screen.getByRole("button", { name: /which paint/ }));
    expect(await screen.findByText("No paint can do it.")).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: /half as deep/ }));
    expect(keep.mock.calls[0]?.[0].figures?.[0]?.place).toMatchObject({ behind_mm: 20, height_mm: 90 });
  });
  it("says a spectrum that cannot be read", async () => {
    serve({});
    lay(<Spectrum />);
    const group = screen.queryByRole("group", { name: "A measured spectrum" });
    if (!group) await userEvent.click(screen.getByRole("button", { name: /spectrum/ }));
    await userEvent.upload(screen.getByLabelText("Spectrum of a colourant"), new File(["nm,a\n400,x"], "ink.csv"));
    expect(await within(document.body).findByRole("alert")).toBeInTheDocument();
  });
});
