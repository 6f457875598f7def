import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, SCENE } from "../../testing/desk";
import { Flags } from "./flags";

const first = OUTCOME.flags[0];
const tried = { label: "two pours of 26 mm", before: OUTCOME, document: SCENE, edited: false };

describe("Flags", () => {
  it("tells each flag with its grade and its remedies", () => {
    lay(<Flags />);
    for (const flag of OUTCOME.flags) {
      expect(screen.getByText(flag.sentence)).toBeInTheDocument();
      for (const remedy of flag.remedies) {
        expect(screen.getAllByRole("button", { name: `Try: ${remedy.label}` }).length).toBeGreaterThan(0);
      }
    }
  });
  it("leads to where a flag is", async () => {
    const { lower, choosePour, chooseFigure } = lay(<Flags />);
    await userEvent.click(screen.getAllByRole("button", { name: /deep/ })[0] as HTMLElement);
    expect(lower).toHaveBeenCalledWith(first?.depth_mm);
    expect(choosePour).toHaveBeenCalledWith(first?.pour_number);
    expect(chooseFigure).toHaveBeenCalledWith(null);
  });
  it("tries a remedy as it was given, with the digest of its document", async () => {
    const { tryOut } = lay(<Flags />);
    const remedy = first?.remedies[0];
    await userEvent.click(screen.getAllByRole("button", { name: `Try: ${remedy?.label ?? ""}` })[0] as HTMLElement);
    expect(tryOut).toHaveBeenCalledWith(remedy);
    expect(remedy?.digest).toMatch(/^[0-9a-f]{32}$/);
  });
  it("says that nothing is wrong", () => {
    lay(<Flags />, { document: { outcome: { ...OUTCOME, flags: [] } } });
    expect(screen.getByText("Nothing to stop, nothing to watch.")).toBeInTheDocument();
  });
  it("shows what is tried, before and after, and where changes go", async () => {
    const { endTrial } = lay(<Flags />, { document: { trial: tried, outcomeOf: SCENE } });
    const group = screen.getByRole("group", { name: "Tried" });
    expect(within(group).getByText(/goes into what is tried/)).toBeInTheDocument();
    expect(within(group).getByRole("row", { name: /pours 4 4/ })).toBeInTheDocument();
    await userEvent.click(within(group).getByRole("button", { name: "keep it" }));
    expect(endTrial).toHaveBeenCalledWith(true);
    await userEvent.click(within(group).getByRole("button", { name: "drop it" }));
    expect(endTrial).toHaveBeenLastCalledWith(false);
  });
  it("says that what is tried was changed since, and what was refused", () => {
    lay(<Flags />, { document: { trial: { ...tried, edited: true }, refusal: "It no longer fits." } });
    expect(screen.getByText(/and changed since/)).toBeInTheDocument();
    expect(screen.getByRole("alert")).toHaveTextContent("It no longer fits.");
  });
});

describe("flags of one cause", () => {
  const [one, two] = OUTCOME.flags;
  const together = one && two ? [one, { ...two, cause: one.cause, remedies: one.remedies }] : [];
  it("stand together under the worst of them, with what would help once", async () => {
    const { lower } = lay(<Flags />, { document: { outcome: { ...OUTCOME, flags: together } } });
    expect(screen.getAllByRole("listitem")).toHaveLength(1);
    expect(screen.getAllByRole("button", { name: /^Try: / })).toHaveLength(one?.remedies.length ?? 0);
    expect(screen.getByText(/2 watch/)).toBeInTheDocument();
    const more = screen.getByText(two?.sentence ?? "-").closest("details") as HTMLDetailsElement;
    more.open = true;
    more.dispatchEvent(new Event("toggle"));
    expect(lower).toHaveBeenCalledWith(two?.depth_mm);
  });
  it("are counted by grade, notes folded", () => {
    const note = { ...(one as (typeof OUTCOME.flags)[number]), severity: "note" as const, cause: "n", title: "A note" };
    const flags = [...OUTCOME.flags.filter((flag) => flag.severity !== "note"), note];
    lay(<Flags />, { document: { outcome: { ...OUTCOME, flags } } });
    expect(screen.getByText("1 note", { selector: "summary" })).toBeInTheDocument();
  });
});
