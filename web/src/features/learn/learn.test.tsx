import { fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, serve, SHELF } from "../../testing/desk";
import { BOTTLE, FIT } from "../../testing/loop";
import { LearnColour, LearnResin } from "./learn";
import { meanColour } from "../../ui/pick-colour";

const TEST = {
  mass_g: 300,
  wrap_mm: 0,
  lid: false,
  hours: 20,
  peak_c: 37,
  hot_c: 45,
  rate_sd: 0.04,
  heat_sd: 0.06,
  pour_number: 2,
  now: { sure_h: -2 },
  after: { sure_h: 4.2 },
  gain_per_hour: 3,
  words: "A 300 g cup would narrow the peak of pour 2.",
  warning: "It may come to 85 °C.",
};

function answers() {
  return serve({
    "GET /api/library": SHELF,
    "GET /api/bottles/resin/deep": BOTTLE,
    "GET /api/scenes/7/runs": [{ id: "r1", rehearsal: false, started_at: "", ended_at: null, events_count: 9 }],
    "POST /api/learn/tests": [TEST],
    "POST /api/learn/cup": FIT,
    "POST /api/bottles/cups": BOTTLE,
    "DELETE /api/bottle-logs/4": { ...BOTTLE, numbers: {}, logs: [{ ...BOTTLE.logs[0], withdrawn: true }] },
    "POST /api/runs/r1/learn": {
      fit: FIT,
      resin_id: "deep",
      now: [{ pour_number: 2, opens_low_h: 12, opens_high_h: 24 }],
      after: [{ pour_number: 2, opens_low_h: 15, opens_high_h: 19 }],
      kept: false,
      disagrees: true,
    },
  });
}

describe("a bottle", () => {
  it("tells its pace with its range, opens a log to its curve, and takes it back", async () => {
    answers();
    lay(<LearnResin />);
    expect(await screen.findByText("+8 % (+2 % to +15 %)")).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "cup of 60 g" }));
    expect(screen.getByRole("img", { name: /Log over 12 hours: warmest 41/ })).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "numbers that its row gained" }));
    expect(screen.getByText("k1 per s")).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "Take back cup of 60 g" }));
    expect(await screen.findByRole("button", { name: "Let count cup of 60 g" })).toBeInTheDocument();
  });
  it("says what a test would tell, with its warning", async () => {
    answers();
    lay(<LearnResin />);
    expect(await screen.findByText(/would narrow the peak of pour 2/)).toBeInTheDocument();
    expect(screen.getByText(/none now, 4.2 h then/)).toBeInTheDocument();
    expect(screen.getByText("It may come to 85 °C.")).toBeInTheDocument();
  });
  it("learns from a cup's file and says what it found before it is kept", async () => {
    const asked = answers();
    lay(<LearnResin />);
    const file = new File(["min,c\n1,23"], "cup.csv", { type: "text/csv" });
    fireEvent.change(await screen.findByLabelText("Log of the cup"), { target: { files: [file] } });
    expect(await screen.findByText(/quicker than its row by 10 %/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "Teach the bottle" }));
    const kept = asked.find((one) => one.path.endsWith("/bottles/cups"));
    expect(kept?.body).toMatchObject({ resin_id: "deep", log: "min,c\n1,23", setting: { mass_g: 100 } });
  });
  it("shows the windows that a pour narrows, the old ones pale", async () => {
    answers();
    lay(<LearnResin />);
    await userEvent.click(await screen.findByRole("button", { name: "what does it tell?" }));
    expect(await screen.findByText(/disagrees with what was learnt before/)).toBeInTheDocument();
    expect(screen.getByText("pour 2 opens")).toBeInTheDocument();
  });
  it("of colour asks for patches and drops", async () => {
    answers();
    lay(<LearnColour />);
    expect(await screen.findByLabelText("Colour of patch 1")).toHaveValue("#ffffff");
    expect(screen.getByRole("button", { name: "teach the bottle its drops" })).toBeEnabled();
  });
  it("takes the mean of some pixels", () => {
    expect(meanColour([0, 10, 255, 255, 20, 30, 255, 255])).toBe("#0a14ff");
  });
});
