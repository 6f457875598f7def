import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";

import { App } from "../app";
import type { SceneWork } from "../desk/use-scene";
import { OUTCOME, SCENE, serve, SHELF } from "../testing/desk";
import { system } from "../theme";
import { Conflict } from "./conflict";

const STATE = { id: 7, name: SCENE.name, revision: 1, can_undo: true, can_redo: false, document: SCENE };
const CUP = {
  advice: "thin",
  at_min: [0],
  hottest_c: [20],
  peak_c: 20,
  peak_at_min: 0,
  mass_g: 1,
  radius_mm: 1,
  working_min: 1,
  warm_50_min: null,
};

const GLANCE = {
  scale: 48,
  inside_mm: [180, 110, 120],
  pours_count: 4,
  resin_ml: 1650,
  mix_g: 1814,
  first_pour_at: "2999-03-05T09:00",
  demould_at: "2999-03-10T23:49",
  counts: { stop: 0, watch: 3, note: 0 },
  worst: "Pour 2 is 52 mm deep",
  worst_grade: "watch",
  units: { length: "mm", temperature: "c", volume: "ml", mass: "g" },
};

function open(address: string, answers: Record<string, unknown> = {}) {
  const asked = serve({
    "GET /api/scenes": [{ id: 7, name: SCENE.name, revision: 1, changed_at: "2027-03-01T10:00:00Z" }],
    "GET /api/scenes/7": STATE,
    "POST /api/evaluate": OUTCOME,
    "GET /api/library": SHELF,
    "POST /api/heat/cup": CUP,
    "PUT /api/scenes/7": (body: unknown) => ({
      ...STATE,
      revision: 2,
      document: (body as { document: unknown }).document,
    }),
    "POST /api/scenes/7/undo": { ...STATE, revision: 2 },
    ...answers,
  });
  render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <MemoryRouter initialEntries={[address]}>
          <App />
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
  return asked;
}

describe("the page", () => {
  it("opens a scene with its flags, sounding, days and inspector", async () => {
    open("/scenes/7");
    expect(await screen.findByRole("region", { name: "Before you pour" })).toBeInTheDocument();
    for (const name of ["Sounding", "Days", "Inspector"])
      expect(screen.getByRole("region", { name })).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "Pours" })).toHaveAttribute("aria-current", "page");
  });
  it("saves a change from the revision it was made on, and says so", async () => {
    const asked = open("/scenes/7/pours");
    fireEvent.keyDown(await screen.findByRole("slider", { name: "Start of pour 2" }), { key: "ArrowRight" });
    await waitFor(() => {
      expect(asked.find((one) => one.path === "PUT /api/scenes/7")?.body).toMatchObject({ base_revision: 1 });
    });
    expect(await screen.findByText("saved")).toBeInTheDocument();
  });
  it("asks in the units of its reader from the first question on", async () => {
    const asked = open("/scenes/7/pours", {
      "GET /api/scenes/7": {
        ...STATE,
        document: {
          ...SCENE,
          brief: { ...SCENE.brief, units: { length: "in", temperature: "f", volume: "floz", mass: "oz" } },
        },
      },
    });
    await screen.findByRole("region", { name: "Inspector" });
    const evaluated = asked.find((one) => one.path === "POST /api/evaluate");
    expect(evaluated?.headers.get("Gondola-Units")).toBe("in,f,floz,oz");
  });
  it("undoes by the keys", async () => {
    const asked = open("/scenes/7/pours");
    await screen.findByRole("region", { name: "Inspector" });
    fireEvent.keyDown(window, { key: "z", ctrlKey: true });
    await waitFor(() => {
      expect(asked.some((one) => one.path === "POST /api/scenes/7/undo")).toBe(true);
    });
  });
  it("turns all units at once", async () => {
    const asked = open("/scenes/7/pours");
    await userEvent.click(await screen.findByRole("button", { name: /change to inches/ }));
    await waitFor(() => {
      const saved = asked.find((one) => one.path === "PUT /api/scenes/7")?.body as
        { document: typeof SCENE } | undefined;
      expect(saved?.document.brief.units).toEqual({ length: "in", temperature: "f", volume: "floz", mass: "oz" });
    });
  });
  it("says that a scene is not there", async () => {
    const gone = () => new Response(JSON.stringify({ message: "There is no such thing here." }), { status: 404 });
    open("/scenes/9/pours", { "GET /api/scenes/9": gone });
    expect(await screen.findByRole("alert")).toHaveTextContent("There is no such thing here.");
    expect(screen.getByRole("link", { name: "All scenes" })).toBeInTheDocument();
  });
  it("leads out of a state that is no longer taken: to its file, and back to an earlier one", async () => {
    let restored = false;
    const message = "The first pour has to begin in a year from 1970 to 2200, not in 1900.";
    const refused = () => new Response(JSON.stringify({ message, problems: [] }), { status: 422 });
    const rows = [2, 1].map((number) => ({
      number,
      parent: null,
      note: "",
      kept_aside: false,
      shown: number === 2,
      created_at: "2027-03-01T10:00:00Z",
    }));
    const asked = open("/scenes/7/pours", {
      "GET /api/scenes/7": () => (restored ? STATE : refused()),
      "GET /api/scenes/7/revisions": rows,
      "POST /api/scenes/7/restore": () => {
        restored = true;
        return STATE;
      },
    });
    expect(await screen.findByRole("alert")).toHaveTextContent("not in 1900");
    expect(screen.getByRole("link", { name: "its file, as it is kept" })).toHaveAttribute("href", "/api/scenes/7/file");
    await userEvent.click(await screen.findByRole("button", { name: "Bring state 1 back" }));
    expect(await screen.findByRole("region", { name: "Inspector" })).toBeInTheDocument();
    expect(asked.find((one) => one.path.endsWith("restore"))?.body).toEqual({ base_revision: 2, number: 1 });
  });
});

describe("all scenes", () => {
  it("say why one of them shows nothing", async () => {
    const refused = () => new Response(JSON.stringify({ message: "Not in 1900.", problems: [] }), { status: 422 });
    open("/", { "GET /api/scenes/7/glance": refused });
    expect(await screen.findByText("Not in 1900.")).toBeInTheDocument();
    fireEvent.error(screen.getByAltText(`${SCENE.name}, as it will look`));
    expect(screen.queryByAltText(`${SCENE.name}, as it will look`)).toBeNull();
  });
  it("stand there by their look, with what decides, and the next hour", async () => {
    open("/", { "GET /api/scenes/7/glance": GLANCE });
    expect(await screen.findByRole("link", { name: `Open ${SCENE.name}` })).toHaveAttribute("href", "/scenes/7/pours");
    expect(screen.getByAltText(`${SCENE.name}, as it will look`)).toHaveAttribute(
      "src",
      expect.stringContaining("/api/scenes/7/picture"),
    );
    expect(await screen.findByText(/4 pours of 1814 g/)).toBeInTheDocument();
    expect(screen.getByText("Pour 2 is 52 mm deep")).toBeInTheDocument();
    expect(screen.getByText(/first pour, as planned/)).toBeInTheDocument();
    expect(screen.getByRole("link", { name: "Begin a piece" })).toHaveAttribute("href", "/begin");
  });
  it("are sounded where they are the newest; the others stand below by their names", async () => {
    const rows = Array.from({ length: 20 }, (_, at) => ({
      id: 100 + at,
      name: `piece ${at}`,
      revision: 1,
      changed_at: "2027-03-01T10:00:00Z",
      may: "own",
      owner: "me",
    }));
    const glances = Object.fromEntries(rows.map(({ id }) => [`GET /api/scenes/${id}/glance`, GLANCE]));
    const asked = open("/", { "GET /api/scenes": rows, ...glances });
    const earlier = await screen.findByRole("region", { name: "Earlier pieces" });
    expect(within(earlier).getAllByRole("link")).toHaveLength(9);
    expect(within(earlier).getByRole("link", { name: "piece 19" })).toHaveAttribute("href", "/scenes/119/pours");
    expect(within(earlier).getByRole("button", { name: "Delete piece 19" })).toBeInTheDocument();
    await waitFor(() => {
      expect(asked.filter((one) => one.path.endsWith("/glance"))).toHaveLength(11);
    });
    expect(asked.some((one) => one.path.includes("/119/"))).toBe(false);
  });
  it("where there is none, the page says what it is for", async () => {
    open("/", { "GET /api/scenes": [] });
    expect(await screen.findByText(/how hot it gets, when the next one bonds/)).toBeInTheDocument();
  });
  it("a file that is refused adds nothing", async () => {
    open("/");
    await screen.findByRole("link", { name: `Open ${SCENE.name}` });
    await userEvent.upload(
      screen.getByLabelText("Scene file"),
      new File(["{"], "bad.json", { type: "application/json" }),
    );
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing was added.");
  });
});

describe("Conflict", () => {
  it("lets the person choose between both states", async () => {
    const work = { conflict: { message: "Somebody saved first." }, takeTheirs: vi.fn(), putMineOnTop: vi.fn() };
    render(
      <ChakraProvider value={system}>
        <Conflict work={work as unknown as SceneWork} />
      </ChakraProvider>,
    );
    const box = screen.getByRole("alertdialog");
    expect(box).toHaveTextContent("Somebody saved first.");
    await userEvent.click(within(box).getByRole("button", { name: "show theirs" }));
    await userEvent.click(within(box).getByRole("button", { name: "put mine on top" }));
    expect(work.takeTheirs).toHaveBeenCalledTimes(1);
    expect(work.putMineOnTop).toHaveBeenCalledTimes(1);
  });
});
