import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, part, serve } from "../../testing/desk";
import { FINISH } from "../../testing/loop";
import { FinishInspector } from "./finish";

describe("the finish", () => {
  it("tells each step with its safety line and how long it takes", async () => {
    serve({ "POST /api/finish": FINISH });
    lay(<FinishInspector />);
    await userEvent.click(await screen.findByRole("button", { name: "Open the joints" }));
    expect(screen.getByText("some 12 min of work")).toBeInTheDocument();
    expect(screen.getByText("No flame.")).toBeInTheDocument();
    expect(screen.getByText("Boat will stick.")).toBeInTheDocument();
  });
  it("costs both schools and tells the top", async () => {
    serve({ "POST /api/finish": FINISH });
    lay(<FinishInspector />);
    await screen.findByText("Open the joints");
    await part("faces");
    expect(screen.getByText("209 min")).toBeInTheDocument();
    expect(screen.getByText(/77 min, 35 ml|77 min, 34.8 ml/)).toBeInTheDocument();
    await part("top and edge");
    expect(screen.getByText("2.2 mm")).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "PDF" })).toBeEnabled();
  });
});
