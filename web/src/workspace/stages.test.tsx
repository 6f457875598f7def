import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode } from "react";
import { describe, expect, it, vi } from "vitest";

import { BedToolsContext, useBedToolsState } from "../features/bed";
import { lay, OUTCOME, part, SCENE, serve, SHELF } from "../testing/desk";
import { FINISH } from "../testing/loop";
import { Middle } from "./middle";
import { STAGES, stageOf, stageWord } from "../stages";

function Tools({ children }: { children: ReactNode }) {
  return <BedToolsContext value={useBedToolsState(110)}>{children}</BedToolsContext>;
}

const ANSWERS = {
  "POST /api/finish": FINISH,
  "GET /api/scenes/7/entries": [],
  "GET /api/library": SHELF,
  "POST /api/cut-list/sheets": [],
  "GET /api/scenes/7/revisions": [
    {
      number: 2,
      parent: 1,
      note: "line of pour 2",
      kept_aside: false,
      shown: true,
      created_at: "2027-03-01T10:00:00Z",
    },
    { number: 1, parent: null, note: "sample", kept_aside: false, shown: false, created_at: "2027-03-01T09:00:00Z" },
  ],
  "POST /api/heat/plane": () => ({
    at_h: 0,
    behind_mm: 55,
    x_mm: [],
    depth_mm: [],
    temperature_c: [],
    degree_of_cure: [],
  }),
};

describe("stages", () => {
  it("stand in the order of the work, and Pours is where one begins", () => {
    expect(STAGES.map(stageWord)).toEqual(["Tank", "Bed", "Figures", "Water", "Pours", "Bench", "Finish", "Log"]);
    expect(stageOf("bed").word).toBe("bed");
    expect(stageOf("nowhere").word).toBe("pours");
  });
  it.each(STAGES.map((stage) => [stage.word, stage] as const))(
    "%s has an inspector of its own",
    async (_word, stage) => {
      serve(ANSWERS);
      const { container } = lay(
        <Tools>
          <stage.Inspector />
        </Tools>,
      );
      await waitFor(() => {
        expect(container.querySelectorAll("h2").length).toBeGreaterThan(0);
      });
    },
  );
  it.each(STAGES.map((stage) => [stage.word, stage] as const))(
    "%s leads to each of its views",
    async (_word, stage) => {
      serve(ANSWERS);
      vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:x", revokeObjectURL: () => undefined }));
      lay(
        <Tools>
          <Middle stage={stage} />
        </Tools>,
      );
      for (const view of stage.views.filter((one) => one.word !== "round")) {
        await userEvent.click(screen.getByRole("button", { name: view.word }));
        expect(screen.getByRole("button", { name: view.word })).toHaveAttribute("aria-pressed", "true");
      }
    },
  );
});

describe("bench, finish and log", () => {
  const inspector = (word: string) => {
    const { Inspector } = stageOf(word);
    serve(ANSWERS);
    return lay(<Inspector />);
  };
  it("the bench tells each cup and its caution", async () => {
    inspector("bench");
    await part("cups");
    expect(screen.getByText(/Unset resin sensitises/)).toBeInTheDocument();
    for (const pour of OUTCOME.pours)
      expect(screen.getByText(`${pour.cup.mix.part_b_g.toFixed(1)} g`)).toBeInTheDocument();
  });
  it("finish takes the grit and says when the dam comes off", async () => {
    const { keep } = inspector("finish");
    expect(await screen.findByText(/dam off .*Mar/)).toBeInTheDocument();
    await part("faces");
    const field = screen.getByLabelText("sand up to grit");
    await userEvent.clear(field);
    await userEvent.type(field, "2000{Enter}");
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].finish.sand_to_grit).toBe(2000);
    });
  });
  it("the log brings a revision back", async () => {
    const step = vi.fn();
    const { Inspector } = stageOf("log");
    serve(ANSWERS);
    lay(<Inspector />, { document: { work: { id: 7, document: SCENE, saving: { kind: "saved" }, step } as never } });
    await part("revisions");
    await userEvent.click(await screen.findByRole("button", { name: "Bring revision 1 back" }));
    expect(step).toHaveBeenCalledWith("restore", 1);
  });
});
