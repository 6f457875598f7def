import { act, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { TouchedContext } from "../../desk/touched";
import { Axis, Events, FRAME, lay, serve, SHELF, US } from "../../testing/desk";
import { Cup } from "./cup";
import { FromSheet } from "./from-sheet";
import { HeatLayer } from "./heat-layer";
import { PlacePlot } from "./place-plot";
import { Stager } from "./stager";
import { Weighing } from "./weighing";
import { WhyHot } from "./why-hot";

const CUP = {
  mass_g: 870,
  vessel: "cup",
  radius_mm: 56,
  working_min: 180,
  warm_50_min: 181,
  warm_40_min: 90,
  warm_100_min: 276,
  peak_c: 103,
  peak_at_min: 290,
  at_min: [0, 100, 200, 300],
  hottest_c: [24, 35, 60, 103],
  advice: "Pour it within 118 min.",
};
const REMEDY = { label: "3 pours of 40 mm at 23 °C", digest: "d", edits: [] };
const STAGED = {
  name: "23 °C",
  room_c: 23,
  pours_count: 3,
  clear: true,
  hottest_c: 51,
  runs_away: false,
  last_pour_d: 2,
  demould_d: 6.1,
  stops: [],
  after_words: "",
  remedy: REMEDY,
};

describe("Cup", () => {
  it("asks for the mass of one cup and tells what comes back", async () => {
    const asked = serve({ "POST /api/heat/cup": CUP });
    lay(<Cup />);
    expect(await screen.findByText("Pour it within 118 min.")).toBeInTheDocument();
    expect(asked[0]?.body).toMatchObject({ mix_c: 24, room_c: 26, vessel: "cup" });
  });
  it("asks anew when the vessel or the units change", async () => {
    const asked = serve({ "POST /api/heat/cup": CUP });
    lay(<Cup />, { units: US });
    await userEvent.selectOptions(await screen.findByLabelText("stands in"), "tray");
    await waitFor(() => {
      expect(asked.map((one) => (one.body as { vessel: string }).vessel)).toEqual(["cup", "tray"]);
    });
    expect(screen.getByText("over 122 °F")).toBeInTheDocument();
  });
});

describe("WhyHot", () => {
  it("tells each cause taken away", async () => {
    const causes = [
      { name: "its depth", without: "poured half as deep", peak_c: 44, adds_k: 22 },
      { name: "still air", without: "with a fan on it", peak_c: 66, adds_k: 0.2 },
    ];
    serve({ "POST /api/heat/why": { pour_number: 2, peak_c: 66, causes, sentence: "Of 66 °C: its depth 22 K." } });
    lay(<WhyHot />);
    await userEvent.click(screen.getByRole("button", { name: "why so hot?" }));
    expect(await screen.findByText("poured half as deep")).toBeInTheDocument();
    expect(screen.queryByText("with a fan on it")).toBeNull();
  });
  it("says why it could not", async () => {
    serve({});
    lay(<WhyHot />);
    await userEvent.click(screen.getByRole("button", { name: "why so hot?" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers");
  });
});

describe("Stager", () => {
  it("follows its job and offers each staging, the wider one too", async () => {
    vi.stubGlobal("EventSource", Events);
    const job = { id: "s1", kind: "stagings", state: "running", progress_fraction: 0.5, message: "" };
    const asked = serve({
      "POST /api/jobs/stagings": job,
      "GET /api/jobs/s1/stagings": [
        STAGED,
        { ...STAGED, name: "23 °C, footprint doubled", clear: false, stops: ["Too hot"] },
      ],
    });
    const { tryOut } = lay(<Stager />);
    await userEvent.click(screen.getByRole("button", { name: "fewest pours that stop nothing" }));
    expect(await screen.findByText("trying, 50 %")).toBeInTheDocument();
    expect(asked[0]?.body).toMatchObject({ resin_id: "deep", rooms_c: [15, 23] });
    act(() => {
      Events.open?.tell({ ...job, state: "done" });
    });
    expect(await screen.findByText("Too hot")).toBeInTheDocument();
    const tries = screen.getAllByRole("button", { name: `Try: ${REMEDY.label}` });
    expect(tries).toHaveLength(2);
    await userEvent.click(tries[0] as HTMLElement);
    expect(tryOut).toHaveBeenCalledWith(REMEDY);
  });
});

describe("FromSheet", () => {
  it("keeps the resin that answers its sheet and pours it", async () => {
    const resin = { ...SHELF.resins[0], id: "my-resin", name: "my resin" };
    const asked = serve({
      "GET /api/library": SHELF,
      "POST /api/heat/from-sheet": { resin, words: "class deep-pour resin" },
      "PUT /api/library/resin": SHELF,
    });
    const { keep } = lay(<FromSheet />);
    await userEvent.click(screen.getByRole("button", { name: "a resin from its data sheet" }));
    await userEvent.click(screen.getByRole("button", { name: /fit it/ }));
    await waitFor(() => {
      expect(keep).toHaveBeenCalled();
    });
    expect(keep.mock.calls[0]?.[0].pours[1]?.resin_id).toBe("my-resin");
    expect(asked.map((one) => one.path)).toContain("PUT /api/library/resin");
  });
});

describe("heat on the section", () => {
  const plane = {
    at_h: 32,
    behind_mm: 55,
    x_mm: [45, 135],
    depth_mm: [30, 90],
    temperature_c: [
      [30, 40],
      [50, null],
    ],
    degree_of_cure: [
      [0.1, 0.2],
      [0.3, null],
    ],
  };
  it("is told with its range, and a place can be touched", async () => {
    serve({ "POST /api/heat/plane": plane });
    const touch = vi.fn();
    const { container } = lay(
      <TouchedContext value={{ touched: null, touch }}>
        <Axis>
          <HeatLayer frame={FRAME} />
        </Axis>
      </TouchedContext>,
    );
    expect(await screen.findByRole("img", { name: /Heat 55 mm behind the glass, 18 °C to 50 °C/ })).toBeInTheDocument();
    expect(container.querySelectorAll("rect").length).toBeGreaterThan(2);
  });
  it("draws the curve of the place that is touched", async () => {
    serve({
      "POST /api/heat/curve": {
        x_mm: 90,
        depth_mm: 70,
        at_h: [0, 10, 20],
        temperature_c: [null, 40, 62],
        degree_of_cure: [null, 0.2, 0.5],
      },
    });
    lay(
      <TouchedContext value={{ touched: { x_mm: 90, depth_mm: 70 }, touch: vi.fn() }}>
        <PlacePlot />
      </TouchedContext>,
    );
    expect(
      await screen.findByRole("img", { name: "Temperature of the touched place: 62 °C at its hottest" }),
    ).toBeInTheDocument();
  });
});

describe("Weighing", () => {
  const WEIGHED = { part_a_g: 197.8, part_b_g: 84.3, error_fraction: 0.0002 };
  it("says what the scale is to show, and what to do with what was poured", async () => {
    const asked = serve({
      "POST /api/cup/weigh": (body: unknown) => ({
        weighed: WEIGHED,
        correction:
          (body as { part_a_g?: number }).part_a_g === undefined
            ? null
            : {
                error_fraction: -0.06,
                add: "b",
                add_g: 5.4,
                take_out_g: 0,
                mix_g: 300,
                over_g: 18,
                until_min: 4,
                do_words: "Add 5.4 g of part B.",
                left_words: "Left so, it stays soft.",
              },
      }),
    });
    lay(<Weighing />);
    const group = within(await screen.findByRole("group", { name: "At the scale" }));
    expect(group.getByText("197.8 g")).toBeInTheDocument();
    expect(group.getByText("0.02 %")).toBeInTheDocument();
    const field = group.getByLabelText("poured of A");
    await userEvent.clear(field);
    await userEvent.type(field, "210{Enter}");
    expect(await group.findByText("Add 5.4 g of part B.")).toBeInTheDocument();
    expect(group.getByText("Left so, it stays soft.")).toBeInTheDocument();
    expect(asked.at(-1)?.body).toMatchObject({ part_a_g: 210, part_b_g: 84.3 });
  });
});
