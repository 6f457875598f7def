import { act, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { Events, lay, OUTCOME, SCENE, serve } from "../../testing/desk";
import { Plans } from "./plans";

const remedy = (label: string) => ({ label, digest: "d", edits: [] });
const plan = (key: string, more: object) => ({
  key,
  name: key,
  goals: [],
  reason: `${key} for a reason.`,
  gives_up: "Gives a little.",
  pours_count: 3,
  days_d: 4.3,
  sessions_count: 3,
  stop_fraction: 0.05,
  clarity_de00: 2.4,
  cost: 1.8,
  clear: true,
  stops: [],
  stops_by: [],
  remedy: remedy(key),
  ...more,
});
const FRONT = {
  plans_count: 600,
  cost_is: "mass",
  plans: [
    plan("own", { name: "your plan", remedy: null, clear: false, stops: ["Pour 2 is 52 mm deep"] }),
    plan("soonest", { stop_fraction: 0.19 }),
    plan("surest", {}),
    plan("one_deep", { name: "one deep pour", clear: false, stop_fraction: 1, stops: ["Pour 1 runs away"] }),
  ],
  binds: [],
  frees: [],
};
const OTHER = { ...SCENE, pours: SCENE.pours.slice(1) };
const TOLD = {
  gains: ["20 K cooler at its hottest."],
  gives: ["1 session more at the bench."],
  same: [],
  new_lines: [{ depth_mm: SCENE.pours[1]?.top_depth_mm ?? 0, words: "searched for from the left" }],
};
const job = (state: string, progress_fraction: number) => ({
  id: "p1",
  kind: "plans",
  state,
  progress_fraction,
  message: "",
});

function answers(more: Record<string, unknown> = {}) {
  vi.stubGlobal("EventSource", Events);
  return serve({
    "POST /api/evaluate": OUTCOME,
    "POST /api/picture": "",
    "POST /api/edits/apply": OTHER,
    "POST /api/beside": TOLD,
    "GET /api/scenes/7/variants": [],
    "POST /api/jobs/plans": job("running", 0.4),
    "GET /api/jobs/p1/plans": FRONT,
    ...more,
  });
}

async function found(more: Record<string, unknown> = {}) {
  const asked = answers(more);
  const take = vi.fn();
  lay(<Plans id={7} scene={SCENE} take={take} />);
  await userEvent.click(await screen.findByRole("button", { name: "clearest" }));
  await userEvent.click(screen.getByRole("button", { name: "find plans" }));
  expect(await screen.findByText("searching, 40 %")).toBeInTheDocument();
  act(() => {
    Events.open?.tell(job("done", 1));
  });
  const table = await screen.findByRole("table", { name: "Plans on the front" });
  return { asked, take, table };
}

describe("Plans", () => {
  it("are searched by what matters, with the resins at hand, and laid beside the own plan", async () => {
    const { asked, table } = await found();
    const body = asked.find((one) => one.path === "POST /api/jobs/plans")?.body as Record<string, unknown>;
    expect(body.matters).toEqual(["clearest"]);
    expect(body.resin_ids).toEqual(SCENE.resins.filter((one) => !one.light).map((one) => one.id));
    expect(within(table).getAllByRole("row")).toHaveLength(1 + FRONT.plans.length);
    expect(within(table).getByRole("row", { name: /^soonest/ })).toHaveAttribute("aria-current", "true");
    expect(await screen.findByText("20 K cooler at its hottest.")).toBeInTheDocument();
    expect(screen.getByText("1 session more at the bench.")).toBeInTheDocument();
    expect(screen.getByText(/^Your plan: Pour 2 is 52 mm deep/)).toBeInTheDocument();
  });
  it("are chosen by their row, and taken", async () => {
    const { take, table } = await found();
    await userEvent.click(within(table).getByRole("button", { name: "surest" }));
    expect(await screen.findByText(/surest for a reason/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "take this plan" }));
    expect(take).toHaveBeenCalledWith(OTHER, "surest");
  });
  it("are kept beside the own one", async () => {
    const kept = { name: "soonest", revision: 2, pours_count: 3, kept_at: "2027-03-05T09:00:00" };
    const { asked } = await found({ "POST /api/scenes/7/variants": [kept] });
    await userEvent.click(await screen.findByRole("button", { name: "keep both" }));
    const body = asked.find((one) => one.path === "POST /api/scenes/7/variants")?.body;
    expect(body).toEqual({ name: "soonest", document: OTHER });
  });
  it("that were kept are laid beside it, renamed and let go", async () => {
    const row = { name: "cooler", revision: 2, pours_count: 3, kept_at: "2027-03-05T09:00:00" };
    const asked = answers({
      "GET /api/scenes/7/variants": [row],
      "GET /api/scenes/7/variants/cooler": OTHER,
      "POST /api/scenes/7/variants/cooler/name": [row],
      "DELETE /api/scenes/7/variants/cooler": [],
    });
    lay(<Plans id={7} scene={SCENE} take={vi.fn()} />);
    await userEvent.click(await screen.findByRole("button", { name: "cooler" }));
    expect(await screen.findByText(/in “cooler”/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "rename cooler" }));
    const field = screen.getByLabelText("new name of cooler");
    await userEvent.clear(field);
    await userEvent.type(field, "in a week{Enter}");
    expect(asked.find((one) => one.path.endsWith("/name"))?.body).toEqual({ name: "in a week" });
    await userEvent.click(await screen.findByRole("button", { name: "let cooler go" }));
    expect(asked.map((one) => one.path)).toContain("DELETE /api/scenes/7/variants/cooler");
  });
  it("say what binds where no way clears every stop", async () => {
    const bound = {
      ...FRONT,
      plans: FRONT.plans.map((one) => ({ ...one, clear: false })),
      binds: ["The seal gets 30 °C"],
      frees: [
        { words: "seal it with silicone", clears: true, stops_count: 0, remedy: remedy("seal") },
        { words: "stand it on wood", clears: false, stops_count: 2, remedy: remedy("wood") },
      ],
    };
    await found({ "GET /api/jobs/p1/plans": bound });
    const binds = within(screen.getByRole("group", { name: "What binds" }));
    expect(binds.getByText("The seal gets 30 °C")).toBeInTheDocument();
    expect(binds.getByText("seal it with silicone: clears every stop")).toBeInTheDocument();
    expect(binds.getByText("stand it on wood: 2 left")).toBeInTheDocument();
  });
  it("are refused in a sentence", async () => {
    answers();
    serve({ "POST /api/evaluate": OUTCOME, "GET /api/scenes/7/variants": [] });
    lay(<Plans id={7} scene={SCENE} take={vi.fn()} />);
    await userEvent.click(await screen.findByRole("button", { name: "find plans" }));
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers");
  });
});
