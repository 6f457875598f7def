import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";

import type { Beginning } from "../../api/types";
import { SCENE, serve, SHELF } from "../../testing/desk";
import { system } from "../../theme";
import { withCount } from "./answers";
import { BeginPiece } from "./begin";

const USUAL = {
  resin_id: "deep",
  owned: ["leaf-green-ink"],
  units: { length: "mm", temperature: "c", volume: "ml", mass: "g" },
};
const BEGUN = {
  scene: SCENE,
  stops_count: 0,
  summary: { waits: ["Sat: pour 1"], cost: [], wrong: ["Pour 3 comes late."], buy: ["788 g of part A"], unknown: [] },
};

function open(answers: Record<string, unknown> = {}) {
  vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:x", revokeObjectURL: () => undefined }));
  const asked = serve({
    "GET /api/usual": USUAL,
    "PUT /api/usual": USUAL,
    "GET /api/library": SHELF,
    "POST /api/begin": BEGUN,
    ...answers,
  });
  const add = vi.fn().mockResolvedValue({ id: 12 });
  render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MemoryRouter>
          <BeginPiece now="2026-11-25T18:00" add={add} />
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
  const last = () =>
    (asked.filter((one) => one.path === "POST /api/begin").at(-1)?.body as { beginning: Beginning }).beginning;
  return { asked, add, last };
}
const question = (name: RegExp) => screen.findByRole("button", { name });

describe("Begin", () => {
  it("lays a plan before anything is answered, and says what it asks", async () => {
    open();
    const plan = await screen.findByRole("region", { name: "The plan so far" });
    expect(await within(plan).findByText("4 pours, nothing stops it")).toBeInTheDocument();
    expect(within(plan).getByRole("heading", { name: "When hands are needed" })).toBeInTheDocument();
    expect(within(plan).getByText("788 g of part A")).toBeInTheDocument();
    expect(within(plan).queryByRole("heading", { name: "What it costs" })).toBeNull();
  });
  it("lays it anew with each answer", async () => {
    const { last } = open();
    const deep = await screen.findByLabelText("water, deep");
    await userEvent.clear(deep);
    await userEvent.type(deep, "200{Enter}");
    await waitFor(() => {
      expect(last().deep_mm).toBe(200);
    });
    await userEvent.click(screen.getByRole("radio", { name: "round" }));
    await waitFor(() => {
      expect(last()).toMatchObject({ shape: { kind: "round" }, behind_mm: 140 });
    });
    await userEvent.click(await question(/What lies below/));
    await userEvent.click(screen.getByRole("radio", { name: "reef" }));
    await userEvent.click(screen.getByRole("button", { name: "one more plank" }));
    await userEvent.click(await question(/How does the water look/));
    await userEvent.click(screen.getByRole("radio", { name: "murky pond" }));
    await userEvent.click(await question(/What is at hand/));
    await userEvent.click(await screen.findByRole("button", { name: "red ink" }));
    await userEvent.click(await question(/When are you free/));
    await userEvent.selectOptions(screen.getByLabelText("free"), "weekends");
    await waitFor(() => {
      expect(last()).toMatchObject({
        bed: "reef",
        water: "murky",
        figures: [
          { kind: "fish", count: 3 },
          { kind: "plank", count: 1 },
        ],
        usual: { owned: ["leaf-green-ink", "red-ink"], free: { weekday: null, weekend: [8, 22] } },
      });
    });
  });
  it("keeps the plan as a scene, and what is at hand for the next one", async () => {
    const { asked, add } = open();
    await screen.findByText("4 pours, nothing stops it");
    await userEvent.click(screen.getByRole("button", { name: "Make this plan" }));
    await waitFor(() => {
      expect(add).toHaveBeenCalledWith(SCENE);
    });
    expect(asked.find((one) => one.path === "PUT /api/usual")?.body).toMatchObject({ resin_id: "deep" });
  });
  it("says what is refused and keeps the plan that was laid", async () => {
    let answer: unknown = BEGUN;
    open({ "POST /api/begin": () => answer });
    await screen.findByText("4 pours, nothing stops it");
    answer = undefined;
    await userEvent.click(screen.getByRole("radio", { name: "round" }));
    expect(await screen.findByRole("alert")).toBeInTheDocument();
  });
  it("offers six of our own to begin with", async () => {
    const { add } = open({
      "GET /api/starts": [{ key: "lost-key", name: "The Lost Key", about: "A pendant." }],
      "POST /api/starts/lost-key": BEGUN,
    });
    await userEvent.click(await screen.findByRole("button", { name: "like one of these" }));
    await userEvent.click(await screen.findByRole("button", { name: "Begin like The Lost Key" }));
    await waitFor(() => {
      expect(add).toHaveBeenCalledWith(SCENE);
    });
  });
  it("takes depths from a photograph by its four corners", async () => {
    const { asked, last } = open({
      "POST /api/beds/photographed": { measured: [{ x_mm: 20, behind_mm: 30, depth_mm: 60 }] },
    });
    await userEvent.click(await question(/What lies below/));
    await userEvent.upload(
      screen.getByLabelText("Photograph of the base"),
      new File(["x"], "base.png", { type: "image/png" }),
    );
    const photograph = await screen.findByAltText("The built base in its dam");
    expect(screen.getByText("Click the front left corner of the dam.")).toBeInTheDocument();
    for (const [x, y] of [
      [0, 90],
      [90, 90],
      [80, 10],
      [10, 10],
      [40, 50],
    ])
      fireEvent.click(photograph, { clientX: x, clientY: y });
    await userEvent.type(screen.getByLabelText("below the fill line"), "60{Enter}");
    await waitFor(() => {
      expect(last().measured).toEqual([{ x_mm: 20, behind_mm: 30, depth_mm: 60 }]);
    });
    expect(asked.find((one) => one.path === "POST /api/beds/photographed")?.body).toMatchObject({
      corners_px: [
        [0, 90],
        [90, 90],
        [80, 10],
        [10, 10],
      ],
      depths: [{ at_px: [40, 50], depth_mm: 60 }],
    });
  });
});

describe("withCount", () => {
  it.each([
    ["fish", 1, [{ kind: "fish", count: 4 }]],
    ["fish", -3, []],
    [
      "post",
      1,
      [
        { kind: "fish", count: 3 },
        { kind: "post", count: 1 },
      ],
    ],
    ["fish", 40, [{ kind: "fish", count: 12 }]],
  ])("%s by %i", (kind, by, expected) => {
    expect(withCount([{ kind: "fish", count: 3 }], kind, by)).toEqual(expected);
  });
});
