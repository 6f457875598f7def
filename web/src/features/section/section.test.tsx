import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { Axis, FRAME, lay, OUTCOME, SCENE, US } from "../../testing/desk";
import { Gondola } from "./gondola";
import { LayerLines } from "./lines";
import { Plan } from "./plan";
import { TankSection } from "./tank-section";

const trap = {
  figure_id: "pike",
  volume_ml: 0.42,
  x_mm: 90,
  behind_mm: 40,
  depth_mm: 60,
  lip_depth_mm: 70,
  cells_mm: [[90, 60, 70]],
};
const withTrap = { ...OUTCOME, filling: { ...OUTCOME.filling, traps: [trap] } };

describe("Gondola", () => {
  it.each([
    ["ArrowDown", 71],
    ["PageUp", 60],
    ["Home", 0],
    ["End", 120],
  ])("is lowered by %s", (key, depth_mm) => {
    const { lower } = lay(
      <Axis>
        <Gondola width={800} />
      </Axis>,
    );
    fireEvent.keyDown(screen.getByRole("slider", { name: "Gondola" }), { key });
    expect(lower).toHaveBeenCalledWith(depth_mm);
  });
  it("reads out every profile in words", () => {
    lay(
      <Axis>
        <Gondola width={800} />
      </Axis>,
    );
    const words = screen.getByRole("slider", { name: "Gondola" }).getAttribute("aria-valuetext");
    for (const word of ["70 mm deep", "pour 2, in the window: bonds", "peak", "light left", "back wall #"]) {
      expect(words).toContain(word);
    }
  });
  it("reads in inches to a sixteenth", () => {
    lay(
      <Axis>
        <Gondola width={800} />
      </Axis>,
      { units: US },
    );
    expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toContain("2 3/4 in deep");
  });
});

describe("LayerLines", () => {
  const lines = (laid = {}) =>
    lay(
      <Axis>
        <LayerLines frame={FRAME} right={800} />
      </Axis>,
      laid,
    );
  it("can be moved but for the fill line", () => {
    lines();
    expect(screen.getAllByRole("slider").map((one) => one.getAttribute("aria-label"))).toEqual([
      "Line of pour 1",
      "Line of pour 2",
      "Line of pour 3",
    ]);
  });
  it.each([
    ["ArrowDown", 41],
    ["PageUp", 30],
  ])("moves by %s and keeps from its neighbours", (key, top_depth_mm) => {
    const { keep } = lines();
    fireEvent.keyDown(screen.getByRole("slider", { name: "Line of pour 2" }), { key });
    expect(keep.mock.calls[0]?.[0].pours[1]?.top_depth_mm).toBe(top_depth_mm);
  });
  it("chooses the pour whose name is pressed", () => {
    const { choosePour } = lines();
    fireEvent.click(screen.getByText("pour 3"));
    expect(choosePour).toHaveBeenCalledWith(3);
  });
});

describe("the tank in section and from above", () => {
  const section = (movable: boolean, laid = {}) =>
    lay(
      <Axis>
        <TankSection frame={FRAME} side={false} picture={null} movable={movable} offDisplay />
        <Plan frame={FRAME} movable={movable} />
      </Axis>,
      laid,
    );
  it("names figures by the scene and chooses the one that is pressed", () => {
    const { chooseFigure } = section(false);
    for (const figure of SCENE.figures ?? []) expect(screen.getAllByText(figure.name).length).toBe(2);
    fireEvent.click(screen.getAllByText("pike")[0] as Element);
    expect(chooseFigure).toHaveBeenCalledWith("pike");
  });
  it("says the air that stays under a figure by its name", () => {
    section(false, { document: { outcome: withTrap } });
    expect(screen.getByText("0.42 ml of air under the pike")).toBeInTheDocument();
  });
  it("says it in fluid ounces to who reads in inches", () => {
    section(false, { document: { outcome: withTrap }, units: US });
    expect(screen.getByText(/0\.014 fl oz of air under the pike/)).toBeInTheDocument();
    expect(screen.getByText(/depths in inches/)).toBeInTheDocument();
  });
  it("lets figures be grabbed only where the stage says so", () => {
    const { container } = section(true);
    expect(container.querySelectorAll(".grab").length).toBe(2 * (SCENE.figures?.length ?? 0));
  });
  it("draws soundings on the plan", () => {
    section(false);
    const first = OUTCOME.section.soundings[0];
    expect(screen.getAllByText(String(Math.round(first?.depth_mm ?? 0))).length).toBeGreaterThan(0);
  });
  it.each([
    ["millimetres, all of them", undefined, 1],
    ["fractions of an inch, as many as have room beside each other", US, 2],
  ])("draws soundings in %s", (_, units, every) => {
    const { container } = section(false, { units });
    const plan = container.querySelector('g[aria-label^="The bed from above"]');
    const columns = new Set(OUTCOME.section.soundings.map((one) => one.x_mm)).size;
    const rows = OUTCOME.section.soundings.length / columns;
    expect(plan?.querySelectorAll('text[text-anchor="middle"]')).toHaveLength(rows * Math.ceil(columns / every));
  });
});
