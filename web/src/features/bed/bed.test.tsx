import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode } from "react";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, part, SCENE, serve, SHELF, US } from "../../testing/desk";
import { BedInspector } from "./bed-inspector";
import { BedSheet } from "./bed-sheet";
import { BedToolsContext, useBedToolsState } from "./tools";

function Tools({ children }: { children: ReactNode }) {
  return <BedToolsContext value={useBedToolsState(110)}>{children}</BedToolsContext>;
}

const bed = (laid = {}) =>
  lay(
    <Tools>
      <BedInspector />
      <BedSheet />
    </Tools>,
    laid,
  );

describe("the bed", () => {
  it("offers what the shelf says a bed may be made of", async () => {
    serve({ "GET /api/library": SHELF });
    bed();
    await part("made of");
    await waitFor(() => {
      expect(within(screen.getByLabelText("made of")).getAllByRole("option").length).toBe(SHELF.uses.bed?.length);
    });
  });
  it("is sealed by a tick", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = bed();
    await part("made of");
    await userEvent.click(screen.getByLabelText("sealed"));
    expect(keep.mock.calls[0]?.[0].bed.sealed).toBe(true);
  });
  it("starts from what the core lays", async () => {
    serve({
      "GET /api/library": SHELF,
      "POST /api/beds/start": {
        heights_mm: [
          [5, 5],
          [9, 9],
        ],
      },
    });
    const { keep } = bed();
    await part("forms");
    await userEvent.click(screen.getByRole("button", { name: "slope" }));
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].bed.heights_mm).toEqual([
        [5, 5],
        [9, 9],
      ]);
    });
  });
  it("says a file that is refused and leaves the bed alone", async () => {
    serve({ "GET /api/library": SHELF });
    const { keep } = bed();
    await part("forms");
    await userEvent.upload(screen.getByLabelText("Mesh or height map of the bed"), new File(["x"], "bed.stl"));
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers POST /api/meshes");
    expect(keep).not.toHaveBeenCalled();
  });
  it("lays measured depths by the core", async () => {
    const asked = serve({
      "GET /api/library": SHELF,
      "POST /api/beds/measured": {
        heights_mm: [
          [1, 1],
          [1, 1],
        ],
      },
    });
    const { keep } = bed();
    await userEvent.click(screen.getByRole("radio", { name: /type depths/ }));
    await userEvent.click(screen.getByRole("button", { name: "add a depth in the middle" }));
    await waitFor(() => {
      expect(keep.mock.calls[0]?.[0].bed.measured).toEqual([{ x_mm: 90, behind_mm: 55, depth_mm: 60 }]);
    });
    expect(asked.some((one) => one.path === "POST /api/beds/measured")).toBe(true);
  });
  it("tells area, gas and air in the reader's units", async () => {
    serve({ "GET /api/library": SHELF });
    bed({ units: US });
    await part("facts");
    expect(screen.getByText("area to seal").nextElementSibling).toHaveTextContent(/in²$/);
    expect(screen.getByText("gas out of it").nextElementSibling).toHaveTextContent(/fl oz$/);
  });
  it("chooses a brush", async () => {
    serve({ "GET /api/library": SHELF });
    bed();
    const brushes = screen.getAllByRole("radio");
    await userEvent.click(brushes[1] as HTMLElement);
    expect(brushes[1]).toHaveAttribute("aria-checked", "true");
    expect(SCENE.bed.sealed).toBe(false);
    expect(OUTCOME.filling.bed_ml).toBeGreaterThan(0);
  });
});
