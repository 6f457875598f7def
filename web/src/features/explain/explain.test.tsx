import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, serve } from "../../testing/desk";
import { WHY } from "../../testing/loop";
import { ExplainPart } from "./explain";

describe("why", () => {
  it("says the likeliest cause first, with what speaks for it, without it, and what would decide", async () => {
    serve({ "POST /api/scenes/7/explain": WHY });
    lay(<ExplainPart />);
    expect(await screen.findByText(WHY.words)).toBeInTheDocument();
    expect(screen.getByText("For it: It gave 16 ml.")).toBeInTheDocument();
    expect(screen.getByText(/as it happened 15.8 ml, without it/)).toBeInTheDocument();
    expect(screen.getByText("What would decide")).toBeInTheDocument();
    expect(screen.getByText(/Its cup comes to 55 °C/)).toBeInTheDocument();
    expect(screen.getByRole("button", { name: "something else, 5 in 100" })).toHaveAttribute("aria-expanded", "false");
  });
  it("strikes a cause out and puts it back", async () => {
    serve({ "POST /api/scenes/7/explain": WHY });
    lay(<ExplainPart />);
    await userEvent.click(await screen.findByRole("button", { name: "Strike out a bed that was not sealed" }));
    expect(await screen.findByRole("button", { name: "put back what was struck out" })).toBeInTheDocument();
  });
});
