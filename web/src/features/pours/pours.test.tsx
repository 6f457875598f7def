import { act, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { inHundred } from "../../desk/drawn";
import { Events, lay, OUTCOME, SCENE, part, serve, US } from "../../testing/desk";
import { Chances } from "./chances";
import { Clarity } from "./clarity";
import { FineCheck } from "./fine-check";
import { Grains } from "./grains";
import { Lines } from "./lines";
import { Order } from "./order";
import { Air, PourInspector } from "./pour-inspector";

const value = (label: string) => screen.getByText(label, { selector: "dt" }).nextElementSibling?.textContent;
const type = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

describe("PourInspector", () => {
  it("tells the pour in parts: fill, cup, cure, joint", () => {
    lay(<PourInspector more={[]} />);
    const told = OUTCOME.pours[1];
    expect(value("volume")).toBe(`${told?.fill.resin_volume_ml.toFixed(0) ?? ""} ml`);
    expect(value("part A")).toBe(`${told?.cup.mix.part_a_g.toFixed(1) ?? ""} g`);
    expect(value("peak")).toContain(`${told?.heat.cure?.peak_c.toFixed(0) ?? ""} °C`);
    expect(value("joint below")).toContain("in the window: bonds");
  });
  it("tells it in inches without a metric word", async () => {
    lay(<PourInspector more={[]} />, { units: US });
    expect(value("peak")).toContain("°F");
    expect(screen.queryByText(/\d (mm|ml|°C)\b/, { selector: "dd" })).toBeNull();
    await part("facts");
    expect(value("deep")).toBe("2 1/16 in");
    expect(screen.queryByText(/\d (mm|ml|°C)\b/, { selector: "dd" })).toBeNull();
  });
  it.each([
    ["line at", "50 mm", { top_depth_mm: 50 }],
    ["mix at", "22", { mix_c: 22 }],
    ["after pour 1", "30", { wait_h: 30 }],
    ["hands on it", "40", { hands_min: 40 }],
  ])("takes %s", async (label, text, change) => {
    const { keep } = lay(<PourInspector more={[]} />);
    await type(label, text);
    await waitFor(() => {
      expect(keep).toHaveBeenCalled();
    });
    expect(keep.mock.calls[0]?.[0].pours[1]).toMatchObject(change);
  });
  it("asks the core to split a pour and to take it out", async () => {
    const { change } = lay(<PourInspector more={[]} />);
    await userEvent.click(screen.getByRole("button", { name: "split in two" }));
    await userEvent.click(screen.getByRole("button", { name: "take it out" }));
    expect(change.mock.calls).toEqual([[{ kind: "split_pour", number: 2 }], [{ kind: "take_pour_out", number: 2 }]]);
  });
  it("says the tack band of the pour's own resin", async () => {
    const resins = SCENE.resins.map((one) => ({ ...one, gel_degree: 0.25, tack_free_degree: 0.6 }));
    lay(<PourInspector more={[]} />, { scene: { ...SCENE, resins } });
    await part("facts");
    await userEvent.click(screen.getByText("where these come from"));
    expect(screen.getByText(/25 % cured.*60 %/)).toBeInTheDocument();
  });
});

describe("Air and grains", () => {
  it("keeps the room by day, and a warm box", async () => {
    const { keep } = lay(<Air />);
    await type("by day", "20");
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].brief.room.day_c).toBe(20);
    });
    await userEvent.click(screen.getByLabelText("in a warm box"));
    expect(keep.mock.calls[1]?.[0].brief.room.warm_box_c).toBe(28);
  });
  it("stirs grains into the chosen pour", async () => {
    const { keep } = lay(<Grains />);
    await userEvent.click(screen.getByRole("button", { name: "stir grains in" }));
    expect(keep.mock.calls[0]?.[0].pours[1]?.inclusions).toEqual([{ kind: "glitter", diameter_mm: 0.2 }]);
  });
});

describe("FineCheck", () => {
  const job = (state: string, share = 0) => ({
    id: "j1",
    kind: "fine_march",
    state,
    progress_fraction: share,
    message: "",
  });
  it("follows its job by events and shows what came out", async () => {
    vi.stubGlobal("EventSource", Events);
    serve({
      "POST /api/jobs/fine-march": job("waiting"),
      "GET /api/jobs/j1/fine-march": { ...OUTCOME, march: { ...OUTCOME.march, cell_mm: 4 } },
    });
    lay(<FineCheck />);
    await userEvent.click(screen.getByRole("button", { name: "Check on fine cells" }));
    expect(await screen.findByText("waiting its turn")).toBeInTheDocument();
    await waitFor(() => {
      expect(Events.open?.address).toBe("/api/jobs/j1/events");
    });
    act(() => {
      Events.open?.tell(job("running", 0.4));
    });
    expect(screen.getByText("marching, 40 %")).toBeInTheDocument();
    act(() => {
      Events.open?.tell(job("done", 1));
    });
    expect(await screen.findByText(/cells of 4 mm: pour 1/)).toBeInTheDocument();
    expect(Events.open?.closed).toBe(true);
  });
  it("can be ended, and says a refusal", async () => {
    vi.stubGlobal("EventSource", Events);
    const asked = serve({
      "POST /api/jobs/fine-march": job("waiting"),
      "POST /api/jobs/j1/cancel": job("cancelled"),
    });
    lay(<FineCheck />);
    await userEvent.click(screen.getByRole("button", { name: "Check on fine cells" }));
    await userEvent.click(await screen.findByRole("button", { name: "end it" }));
    expect(await screen.findByText("Ended; the draft stands.")).toBeInTheDocument();
    expect(asked.map((one) => one.path)).toContain("POST /api/jobs/j1/cancel");
    serve({});
    await userEvent.click(screen.getByRole("button", { name: "Check on fine cells" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers");
  });
});

describe("Chances", () => {
  const DRAWN = {
    draws_count: 128,
    pours: [
      {
        pour_number: 1,
        peak_low_c: 41.8,
        peak_high_c: 66.6,
        opens_low_h: 17,
        opens_high_h: 26,
        closes_low_h: 29,
        closes_high_h: 39,
        bonds_fraction: 0.961,
      },
      {
        pour_number: 2,
        peak_low_c: 47.3,
        peak_high_c: 89.8,
        opens_low_h: 14,
        opens_high_h: null,
        closes_low_h: 27,
        closes_high_h: null,
        bonds_fraction: null,
      },
    ],
    troubles: [{ code: "too_early", pour_number: 2, words: "pour 2 comes too early", chance_fraction: 0.039 }],
  };
  it("draws in the queue, and says in how many of a hundred", async () => {
    vi.stubGlobal("EventSource", Events);
    const state = (kind: string) => ({ id: "c1", kind: "chances", state: kind, progress_fraction: 1, message: "" });
    const asked = serve({ "POST /api/jobs/chances": state("done"), "GET /api/jobs/c1/chances": DRAWN });
    lay(<Chances />);
    await userEvent.click(screen.getByRole("button", { name: "draw it 128 times" }));
    expect(await screen.findByText("in 4 of 100")).toBeInTheDocument();
    expect(screen.getByRole("row", { name: /1 42 to 67 17 h to 26 h in 96 of 100/ })).toBeInTheDocument();
    expect(screen.getByRole("row", { name: /2 47 to 90 14 h to never/ })).toBeInTheDocument();
    expect(asked[0]?.body).toMatchObject({ draws_count: 128, seed: 1 });
  });
  it.each([
    [0, "in under 1 of 100"],
    [0.004, "in under 1 of 100"],
    [0.07, "in 7 of 100"],
  ])("says %d as %s", (share, words) => {
    expect(inHundred(share)).toBe(words);
  });
});

describe("Clarity", () => {
  it("says how many bubbles are seen, from where, and what helps most first", () => {
    lay(<Clarity />, { pourNumber: 1 });
    const told = OUTCOME.clarity[0];
    expect(value("seen")).toBe(told?.words);
    expect(value("from the bed")).toBe("100 %");
    const helps = screen.getAllByRole("listitem");
    expect(helps[0]).toHaveTextContent(told?.helps[0]?.words ?? "-");
    expect(helps[0]).toHaveTextContent(/−9\d %/);
  });
  it("keeps how it is mixed, and cautions where a vessel is used", async () => {
    const { keep } = lay(<Clarity />);
    await userEvent.selectOptions(screen.getByLabelText("stirred"), "paddle");
    expect(keep.mock.calls[0]?.[0].brief.habits?.stirs).toBe("paddle");
    await userEvent.click(screen.getByLabelText("vacuum on the mixed cup"));
    expect(keep.mock.calls[1]?.[0].brief.habits?.vacuum).toBe(true);
    lay(<Clarity />, {
      scene: {
        ...SCENE,
        brief: {
          ...SCENE.brief,
          habits: {
            measures: "mass",
            scale_step_g: 0.1,
            stirs: "slow",
            pours: "low",
            rest_min: 2,
            vacuum: false,
            pot_bar: 4,
            covered: true,
          },
        },
      },
    });
    expect(screen.getByText(/relief valve/)).toBeInTheDocument();
  });
});

describe("Lines", () => {
  it("say how the line on a pour shows from each side, and none on the last", () => {
    lay(<Lines />, { pourNumber: 1 });
    for (const side of OUTCOME.lines[0]?.sides ?? []) {
      const label = side.side === "above" ? "from above" : `from the ${side.side}`;
      expect(screen.getByText(label)).toBeInTheDocument();
      expect(screen.getAllByText(side.words).length).toBeGreaterThan(0);
    }
    lay(<Lines />, { pourNumber: OUTCOME.pours.length });
    expect(screen.getByText(/no line is left on it/)).toBeInTheDocument();
  });
});

describe("Order", () => {
  it("moves a step, adds and takes out one's own, and goes back to the usual", async () => {
    const { keep } = lay(<Order />);
    const [first, second] = OUTCOME.work;
    await userEvent.click(screen.getByRole("button", { name: `${second?.words ?? ""}: earlier` }));
    expect(keep.mock.calls[0]?.[0].order?.slice(0, 2).map((one) => one.id)).toEqual([second?.id, first?.id]);
    await userEvent.type(screen.getByLabelText("a step of your own"), "warm the bottles{Enter}");
    expect(keep.mock.calls[1]?.[0].order?.at(-1)).toEqual({ id: "own:1", name: "warm the bottles" });
    const own = { id: "own:1", words: "warm the bottles", at_h: 0, wrong: true };
    const again = lay(<Order />, {
      scene: { ...SCENE, order: [{ id: "own:1", name: "warm the bottles" }] },
      document: { outcome: { ...OUTCOME, work: [own, ...OUTCOME.work] } },
    });
    expect(screen.getByText(/too late/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "take out warm the bottles" }));
    expect(again.keep.mock.calls[0]?.[0].order?.map((one) => one.id)).toEqual(OUTCOME.work.map((one) => one.id));
    await userEvent.click(screen.getByRole("button", { name: "the usual order again" }));
    expect(again.keep.mock.calls[1]?.[0].order).toEqual([]);
  });
});
