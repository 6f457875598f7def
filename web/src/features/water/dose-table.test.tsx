import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, SCENE } from "../../testing/desk";
import { DoseTable } from "./dose-table";

describe("DoseTable", () => {
  it("tells the drops of every pour by ink, the uppermost first", () => {
    lay(<DoseTable />);
    const heads = screen.getAllByRole("columnheader").map((one) => one.textContent);
    expect(heads).toEqual(["pour", "leaf green ink", "turquoise ink", "burnt umber ink", "red ink"]);
    const lowest = screen.getAllByRole("row").at(-1) as HTMLElement;
    const drops = within(lowest)
      .getAllByRole("cell")
      .slice(1)
      .map((cell) => Number(cell.textContent));
    expect(drops).toEqual(SCENE.pours[0]?.doses?.map((dose) => dose.dose_drops_per_100g));
  });
  it("leaves out inks that no pour takes, and shows none by a dash", () => {
    const pours = SCENE.pours.map((pour, at) => ({ ...pour, doses: at === 0 ? pour.doses?.slice(0, 1) : [] }));
    lay(<DoseTable />, { scene: { ...SCENE, pours } as typeof SCENE });
    expect(screen.getAllByRole("columnheader")).toHaveLength(2);
    expect(screen.getAllByText("–")).toHaveLength(3);
  });
  it("chooses a pour", async () => {
    const { choosePour } = lay(<DoseTable />);
    await userEvent.click(screen.getByRole("button", { name: "Choose pour 1" }));
    expect(choosePour).toHaveBeenCalledWith(1);
  });
});
