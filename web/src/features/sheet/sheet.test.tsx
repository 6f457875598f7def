import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, within } from "@testing-library/react";
import { MemoryRouter, Route, Routes } from "react-router";
import { describe, expect, it } from "vitest";

import { OUTCOME, SCENE, serve, STEPS, US } from "../../testing/desk";
import { system } from "../../theme";
import { PourSheet } from "./pour-sheet";

function open(scene = SCENE, answers: Record<string, unknown> = {}) {
  serve({
    "GET /api/scenes/7": { id: 7, name: scene.name, revision: 3, can_undo: false, can_redo: false, document: scene },
    "POST /api/evaluate": OUTCOME,
    "POST /api/bench/steps": STEPS,
    ...answers,
  });
  return render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MemoryRouter initialEntries={["/scenes/7/sheet"]}>
          <Routes>
            <Route path="/scenes/:sceneId/sheet" element={<PourSheet />} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
}

const MARKED = {
  measures: "volume",
  scale_step_g: 0.1,
  stirs: "slow",
  pours: "low",
  rest_min: 2,
  vacuum: false,
  pot_bar: 0,
  covered: true,
} as const;

describe("PourSheet", () => {
  it("tells the parts in millilitres to whoever has no scale", async () => {
    open({ ...SCENE, brief: { ...SCENE.brief, habits: MARKED } });
    for (const pour of OUTCOME.pours) {
      const block = await screen.findByRole("region", { name: `Pour ${pour.number}` });
      expect(
        within(block).getByText(`${pour.cup.mix.part_b_ml.toFixed(1).replace(/\.0$/, "")} ml`),
      ).toBeInTheDocument();
    }
  });
  it("has a block for every pour with its cups, colours and steps", async () => {
    open();
    for (const pour of OUTCOME.pours) {
      const block = await screen.findByRole("region", { name: `Pour ${pour.number}` });
      expect(within(block).getByText(`${pour.cup.mix.part_b_g.toFixed(1)} g`)).toBeInTheDocument();
      for (const dose of pour.cup.measured.doses)
        expect(within(block).getByText(new RegExp(`^${dose.name}`))).toBeInTheDocument();
      expect(within(block).getByText(/deep-pour resin,/)).toBeInTheDocument();
    }
  });
  it("says how a pour is to meet the one below", async () => {
    open();
    const block = await screen.findByRole("region", { name: "Pour 3" });
    expect(within(block).getByText("Feel pour 2")).toBeInTheDocument();
    expect(within(block).getByText(/Planned: in the window: bonds/)).toBeInTheDocument();
  });
  it("tells of each bottle of colour once, for every pour", async () => {
    open();
    await screen.findByRole("region", { name: "Pour 1" });
    for (const stock of OUTCOME.stocks) expect(screen.getAllByText(stock.words)).toHaveLength(1);
  });
  it("stands with the cautions and the flags that matter", async () => {
    open();
    expect(await screen.findByText("Gloves, window, level table.")).toBeInTheDocument();
    for (const flag of OUTCOME.flags.filter((one) => one.severity !== "note")) {
      expect(screen.getByText(`${flag.title}.`)).toBeInTheDocument();
    }
  });
  it("says no metric word to who reads in inches", async () => {
    const said = "as the core says";
    const pours = OUTCOME.pours.map((pour) => ({
      ...pour,
      clock: { ...pour.clock, label_words: said },
      cup: {
        ...pour.cup,
        measured: { ...pour.cup.measured, doses: pour.cup.measured.doses.map((one) => ({ ...one, recipe: said })) },
      },
    }));
    const outcome = { ...OUTCOME, pours, flags: [] };
    const steps = STEPS.map((one) => ({ ...one, title: said, under: said }));
    open(
      { ...SCENE, brief: { ...SCENE.brief, units: US } },
      { "POST /api/evaluate": { ...outcome, stocks: [] }, "POST /api/bench/steps": steps },
    );
    await screen.findByRole("region", { name: "Pour 1" });
    for (const block of screen.getAllByRole("region")) {
      expect(within(block).getAllByRole("listitem")[0]).toHaveTextContent(said);
      expect(block.textContent).not.toMatch(/\d\s?(mm|ml|g|°C)\b/);
    }
    expect(screen.getByText(/Computed on cells of .* in /)).toBeInTheDocument();
  });
  it("says why it cannot be written", async () => {
    open(SCENE, { "GET /api/scenes/7": undefined });
    serve({});
    expect(await screen.findByRole("alert")).toBeInTheDocument();
  });
});
