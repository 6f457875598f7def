import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { Axis, lay, OUTCOME, SCENE, US } from "../../testing/desk";
import type { ProfileSet } from "./profile-part";
import { Profiles } from "./profiles";
import { ProfileTables } from "./tables";

const SETS: [ProfileSet, string[]][] = [
  ["piece", ["heat", "light", "sight"]],
  ["cure", ["heat", "cured", "gel", "bond", "bubbles"]],
  ["water", ["light", "lines", "sight"]],
];

const drawn = (set: ProfileSet, laid = {}) =>
  lay(
    <Axis>
      <Profiles x={0} set={set} />
    </Axis>,
    laid,
  );

describe("profiles", () => {
  it.each(SETS)("of the %s stand in their order", (set, names) => {
    drawn(set);
    const found = screen.getAllByRole("img").map((one) => one.getAttribute("aria-label")?.split(" ")[0]);
    expect(found).toEqual(names);
  });
  it("do not lie over one another", () => {
    const { container } = drawn("cure");
    const places = [...container.querySelectorAll("g[role=img]")].map((one) =>
      Number(/translate\((\d+)/.exec(one.getAttribute("transform") ?? "")?.[1]),
    );
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(new Set(places).size).toBe(5);
  });
  it("show the tack band at each depth of that pour's own resin", () => {
    const quick = { ...SCENE.resins[1], id: "quick", gel_degree: 0.25, tack_free_degree: 0.6 };
    const scene = { ...SCENE, resins: [...SCENE.resins, quick] } as typeof SCENE;
    const pours = OUTCOME.pours.map((one) => (one.number === 2 ? { ...one, resin_id: "quick" } : one));
    drawn("cure", { scene, document: { outcome: { ...OUTCOME, pours } } });
    expect(screen.getByText("tack of pour 2: 25 to 60 % cured")).toBeInTheDocument();
    expect(screen.getByText("tack of pour 1: 58 to 78 % cured")).toBeInTheDocument();
  });
  it("say the step at each line by its code, and the bond by whether it comes in time", () => {
    drawn("water");
    expect(screen.getAllByText(/^\d+\.\d from the \w+, (invisible|searched for|seen|a band)/)).toHaveLength(
      OUTCOME.lines.length,
    );
  });
  it("read in Fahrenheit", () => {
    drawn("piece", { units: US });
    expect(screen.getByText("peak °F, now")).toBeInTheDocument();
  });
});

describe("tables of the profiles", () => {
  it.each([
    "Heat and cure against depth",
    "Smallest bubble that leaves, against depth",
    "Layer lines",
    "Light left against depth",
    "Sight of figures",
  ])("%s", (caption) => {
    lay(<ProfileTables />);
    const table = screen.getByRole("table", { name: caption });
    expect(table.querySelectorAll("tbody tr").length).toBeGreaterThan(2);
  });
  it("name figures by the scene, not by the outcome", () => {
    const figures = SCENE.figures?.map((one) => (one.id === "pike" ? { ...one, name: "old pike" } : one));
    lay(<ProfileTables />, { scene: { ...SCENE, figures } });
    expect(screen.getByRole("cell", { name: "old pike" })).toBeInTheDocument();
  });
});

it("can be drawn with nothing poured", () => {
  const bare = {
    ...OUTCOME,
    pours: OUTCOME.pours.map((one) => ({ ...one, joint: { ...one.joint, bond: null, seam: null } })),
  };
  const { container } = drawn("water", { document: { outcome: bare } });
  expect(container.querySelector("svg")).not.toBeNull();
  render(<svg />);
});
