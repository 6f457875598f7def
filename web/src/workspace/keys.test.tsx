import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { Walk } from "../features/walk";
import { STEPS } from "../features/walk/steps";
import { STAGES } from "../stages";
import { lay, OUTCOME, SCENE, serve } from "../testing/desk";
import { Keys } from "./keys";
import { matching, placesOf } from "./places";

const KNOWN = { numbers: [], words: [{ word: "tack", sentence: "A finger leaves a print." }] };
const open = () => {
  serve({ "GET /api/scenes": [{ id: 9, name: "Winter lake", revision: 1, changed_at: "" }], "GET /api/known": KNOWN });
  return lay(<Keys />);
};

describe("keys", () => {
  it("are listed by one of them", async () => {
    open();
    fireEvent.keyDown(window, { key: "?" });
    const sheet = screen.getByRole("dialog", { name: "Keys" });
    expect(within(sheet).getByText("find anything by typing")).toBeInTheDocument();
    await userEvent.click(within(sheet).getByRole("button", { name: "put it away" }));
    expect(screen.queryByRole("dialog")).toBeNull();
  });
  it("choose the pour below and above", () => {
    const { choosePour } = open();
    fireEvent.keyDown(window, { key: "]" });
    fireEvent.keyDown(window, { key: "[" });
    expect(choosePour.mock.calls).toEqual([[3], [1]]);
  });
  it("do nothing while something is typed", async () => {
    open();
    fireEvent.keyDown(window, { key: "/" });
    const field = screen.getByRole("combobox", { name: "Find anything" });
    await userEvent.type(field, "?");
    expect(screen.queryByRole("dialog", { name: "Keys" })).toBeNull();
  });
});

describe("the finder", () => {
  it("finds a figure, goes there and chooses it", async () => {
    const { chooseFigure } = open();
    await userEvent.click(screen.getByRole("button", { name: "find" }));
    await userEvent.type(screen.getByRole("combobox"), "pike{Enter}");
    expect(chooseFigure).toHaveBeenCalledWith("pike");
    expect(screen.queryByRole("dialog")).toBeNull();
  });
  it("finds scenes, and says words of the trade", async () => {
    open();
    await userEvent.click(screen.getByRole("button", { name: "find" }));
    await userEvent.type(screen.getByRole("combobox"), "winter");
    expect(await screen.findByRole("option", { name: /Winter lake/ })).toBeInTheDocument();
    await userEvent.clear(screen.getByRole("combobox"));
    await userEvent.type(screen.getByRole("combobox"), "tack");
    expect(await screen.findByText("A finger leaves a print.")).toBeInTheDocument();
  });
  it.each([
    ["", "Tank"],
    ["fill line", "tank, size"],
    ["wax release", "tank, dam"],
    ["52 mm deep", "Pour 2 is 52 mm deep"],
    ["data sheet", "pours, resin"],
  ])("'%s' leads first to %s", (typed, expected) => {
    expect(matching(placesOf(7, SCENE, OUTCOME), typed)[0]?.word).toBe(expected);
  });
  it("finds nothing for what is not there", () => {
    expect(matching(placesOf(7, SCENE, OUTCOME), "zeppelin")).toEqual([]);
  });
});

describe("the walk through a first pour", () => {
  it("leads only to stages that are there", () => {
    const words = STAGES.map((one) => one.word);
    for (const step of STEPS) expect(words).toContain(step.stage);
  });
  it("goes on, back, and away at any step", async () => {
    lay(<Walk />, { address: "/scenes/7/tank?walk" });
    const walk = screen.getByRole("region", { name: "A first pour" });
    expect(walk).toHaveTextContent("1 of 8");
    await userEvent.click(within(walk).getByRole("button", { name: "next" }));
    expect(walk).toHaveTextContent("The bed 2 of 8");
    await userEvent.click(within(walk).getByRole("button", { name: "back" }));
    await waitFor(() => {
      expect(walk).toHaveTextContent("1 of 8");
    });
    await userEvent.click(within(walk).getByRole("button", { name: "leave" }));
    expect(screen.queryByRole("region", { name: "A first pour" })).toBeNull();
  });
  it("is not there unasked", () => {
    lay(<Walk />);
    expect(screen.queryByRole("region")).toBeNull();
  });
});
