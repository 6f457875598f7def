import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, SCENE, serve } from "../../testing/desk";
import { ENTRY } from "../../testing/loop";
import { Faults } from "./faults";
import { Lessons, pinsOf, Search } from "./lessons";
import { Story } from "./story";

const NOTE = { ...ENTRY, id: 10, kind: "note", text: "Strings at the edge", fault: null, place: null } as const;

describe("the log", () => {
  it("tells the story, the newest first, and takes an entry back with a way to put it back", async () => {
    serve({ "GET /api/scenes/7/entries": [ENTRY, NOTE], "DELETE /api/entries/10": NOTE });
    lay(<Story />);
    expect(await screen.findByText("Strings at the edge")).toBeInTheDocument();
    const items = screen.getAllByRole("listitem");
    expect(items[0]).toHaveTextContent("Strings");
    expect(items[1]).toHaveTextContent("50 mm deep");
    await userEvent.click(screen.getByRole("button", { name: "Take back Strings at the edge" }));
    expect(await screen.findByRole("button", { name: "put back what was taken" })).toBeInTheDocument();
  });
  it("marks a fault where its place was typed", async () => {
    const asked = serve({ "GET /api/scenes/7/entries": [ENTRY], "POST /api/scenes/7/entries": ENTRY });
    lay(<Faults />);
    expect(screen.getByRole("button", { name: "Mark it, place not said" })).toBeEnabled();
    await userEvent.selectOptions(screen.getByLabelText("what is wrong"), "crack");
    await userEvent.click(screen.getByRole("button", { name: "Mark it, place not said" }));
    expect(await screen.findByText(/50 mm deep/)).toBeInTheDocument();
    expect(asked.map((one) => one.body)).toContainEqual(
      expect.objectContaining({ kind: "fault", fault: { kind: "crack", size_mm: 2, figure_id: null }, place: null }),
    );
  });
  it("meets lessons of other pieces and pins new ones", async () => {
    const lesson = { ...NOTE, kind: "lesson", text: "Warm the room", scene_id: 3, scene_name: "Ferry", snippet: "" };
    serve({
      "GET /api/scenes/7/entries": [],
      "GET /api/scenes/7/lessons": [lesson],
      "POST /api/scenes/7/entries": NOTE,
      "GET /api/log/search": [lesson],
    });
    lay(
      <>
        <Lessons />
        <Search />
      </>,
    );
    expect((await screen.findAllByText("lesson of Ferry"))[0]).toHaveAttribute("href", "/scenes/3/log");
    await userEvent.type(screen.getByLabelText("A lesson"), "Seal it");
    await userEvent.click(screen.getByRole("button", { name: "Pin it" }));
    expect(await screen.findByText(/It is met again/)).toBeInTheDocument();
  });
  it("can be pinned to what the scene pours, its dam, its colours and its habits", () => {
    const kinds = new Set(pinsOf(SCENE).map(([, pin]) => pin.kind));
    expect([...kinds].toSorted()).toEqual(["colourant", "dam", "habit", "resin"]);
  });
});
