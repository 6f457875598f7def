import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, part, SCENE, serve, SHELF, US } from "../../testing/desk";
import { CutSheet } from "./cut-sheet";
import { OwnMaterial } from "./own-material";
import { TankInspector } from "./tank-inspector";

const type = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

describe("TankInspector", () => {
  it.each([
    ["across", "200", { inner_width_mm: 200 }],
    ["walls", "150", { wall_height_mm: 150 }],
  ])("takes %s", async (label, text, change) => {
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<TankInspector />);
    await type(label, text);
    await waitFor(() => {
      expect(keep).toHaveBeenCalled();
    });
    expect(keep.mock.calls[0]?.[0].tank).toMatchObject(change);
  });
  it("asks the core for another fill line, which walls and pours follow", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep, change } = lay(<TankInspector />);
    await type("fill line", "200 mm");
    await waitFor(() => {
      expect(change).toHaveBeenCalledWith({ kind: "fill_line", fill_mm: 200 });
    });
    expect(keep).not.toHaveBeenCalled();
  });
  it("reads mixed forms by the core", async () => {
    const asked = serve({ "GET /api/library": SHELF, "GET /api/quantity": { value: 381 } });
    const { keep } = lay(<TankInspector />, { units: US });
    await type("across", "1 ft 3");
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].tank.inner_width_mm).toBe(381);
    });
    expect(asked.some((one) => one.path === "GET /api/quantity")).toBe(true);
  });
  it("says what it cannot read and changes nothing", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<TankInspector />);
    await type("walls", "a thumb");
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers GET /api/quantity");
    expect(keep).not.toHaveBeenCalled();
  });
  it.each([
    ["sheet", "wall"],
    ["seal", "seal"],
    ["base", "base"],
  ])("offers for the %s what the shelf says may be one", async (label, use) => {
    serve({ "GET /api/library": SHELF });
    lay(<TankInspector />);
    await part("dam");
    const names = (SHELF.uses[use] ?? []).map((id) => SHELF.solids.find((one) => one.id === id)?.name);
    await waitFor(() => {
      const options = within(screen.getByLabelText(label)).getAllByRole("option");
      expect(new Set(options.map((one) => one.textContent))).toEqual(new Set(names));
    });
  });
  it("takes holidays and quiet hours, and leaves what is none", async () => {
    serve({ "GET /api/library": SHELF });
    const free = { weekday: [17, 22], weekend: [8, 22], holidays: [], away: [] };
    const { keep } = lay(<TankInspector />, { scene: { ...SCENE, brief: { ...SCENE.brief, free } } });
    await part("brief");
    const typed = async (label: string, text: string) => {
      await userEvent.type(screen.getByLabelText(label), text);
      await userEvent.tab();
    };
    await typed("holidays", "2027-12-24, 2027-05-17");
    expect(keep.mock.calls[0]?.[0].brief.free?.holidays).toEqual(["2027-05-17", "2027-12-24"]);
    await typed("quiet hours", "22 to 7");
    expect(keep.mock.calls[1]?.[0].brief.quiet).toEqual([22, 7]);
    await typed("days away", "next week");
    expect(keep).toHaveBeenCalledTimes(2);
  });
  it("takes what differs in this piece from what the person has", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = lay(<TankInspector />);
    await part("brief");
    await userEvent.selectOptions(screen.getByLabelText("free"), "weekends");
    expect(keep.mock.calls[0]?.[0].brief.free).toMatchObject({ weekday: null, weekend: [8, 22] });
    await userEvent.selectOptions(screen.getByLabelText("seen from"), "above");
    expect(keep.mock.calls[1]?.[0].brief.viewing_sides).toEqual(["above"]);
    await type("a kilogram of resin costs", "18");
    await waitFor(() => {
      expect(keep.mock.calls[2]?.[0].brief.price_per_kg).toBe(18);
    });
    await userEvent.selectOptions(screen.getByLabelText("parts are measured by"), "volume");
    expect(keep.mock.calls[3]?.[0].brief.habits?.measures).toBe("volume");
  });
  it("says bulge and weight in inches and pounds", () => {
    serve({ "GET /api/library": SHELF });
    lay(<TankInspector />, { units: US });
    expect(screen.getByText("weighs about").nextElementSibling).toHaveTextContent(/lb$/);
    expect(screen.queryByText(/\d (mm|kg|ml)\b/, { selector: "dd" })).toBeNull();
  });
});

describe("CutSheet", () => {
  it("lists the panels and lays them on sheets", async () => {
    const panel = OUTCOME.dam.cuts.panels[0];
    const sheet = {
      number: 1,
      from_sheet: "wall",
      width_mm: 600,
      height_mm: 400,
      used_fraction: 0.4,
      laid: [
        {
          name: panel?.name,
          x_mm: 0,
          y_mm: 0,
          width_mm: 100,
          height_mm: 80,
          turned: false,
          bevels: "",
          outline_mm: null,
        },
      ],
    };
    serve({ "POST /api/cut-list/sheets": [sheet] });
    lay(<CutSheet />);
    expect(screen.getByText(OUTCOME.dam.cuts.words)).toBeInTheDocument();
    for (const one of OUTCOME.dam.cuts.panels) expect(screen.getAllByText(one.name).length).toBeGreaterThan(0);
    expect(await screen.findByRole("img", { name: "1 panels on wall sheet 1" })).toBeInTheDocument();
    expect(screen.getByText(/40 % used/)).toBeInTheDocument();
  });
  it("takes the saw cut and says a refusal", async () => {
    serve({});
    const { keep } = lay(<CutSheet />);
    await type("saw cut", "3");
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].tank.cutting?.kerf_mm).toBe(3);
    });
    await userEvent.click(screen.getByRole("button", { name: "DXF" }));
    expect((await screen.findAllByText(/Nothing answers/)).length).toBeGreaterThan(0);
  });
});

describe("OwnMaterial", () => {
  it("keeps a row of one's own with its source, and uses it", async () => {
    const taken: unknown[] = [];
    const own = { ...SCENE.tank.wall.material, density_g_ml: 1.3 };
    const asked = serve({
      "GET /api/library": SHELF,
      "PUT /api/library/solid": { ...SHELF, solids: [own, ...SHELF.solids.slice(1)] },
    });
    lay(<OwnMaterial material={SCENE.tank.wall.material} take={(material) => taken.push(material)} />);
    await userEvent.click(screen.getByRole("button", { name: /data of/ }));
    await type("density", "1.3");
    await userEvent.type(screen.getByLabelText("Where these numbers are from"), "weighed");
    await userEvent.click(screen.getByRole("button", { name: /keep/ }));
    await waitFor(() => {
      expect(taken).toEqual([own]);
    });
    expect(asked.at(-1)?.body).toMatchObject({ body: { density_g_ml: 1.3 }, source: "weighed" });
  });
});
