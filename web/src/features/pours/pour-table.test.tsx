import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, US } from "../../testing/desk";
import { PourTable } from "./pour-table";

describe("PourTable", () => {
  it("tells every pour in a line, the uppermost first as in the section", () => {
    lay(<PourTable />);
    const rows = screen.getAllByRole("row").slice(1);
    expect(rows.map((row) => within(row).getByRole("button").textContent)).toEqual(["4", "3", "2", "1"]);
    const told = OUTCOME.pours[1];
    expect(rows[2]).toHaveTextContent(`${told?.heat.cure?.peak_c.toFixed(0) ?? "-"} °C`);
    expect(rows[2]).toHaveTextContent(told?.joint.words ?? "-");
  });
  it("chooses a pour by a press, and marks the chosen one", async () => {
    const { choosePour } = lay(<PourTable />, { pourNumber: 2 });
    expect(screen.getByRole("button", { name: "Choose pour 2" })).toHaveAttribute("aria-pressed", "true");
    await userEvent.click(screen.getByRole("button", { name: "Choose pour 4" }));
    expect(choosePour).toHaveBeenCalledWith(4);
  });
  it("says no metric word to who reads inches", () => {
    lay(<PourTable />, { units: US });
    expect(screen.getByRole("table").textContent).not.toMatch(/\d (mm|g|°C)\b/);
  });
});
