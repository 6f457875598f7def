import { screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { lay, serve } from "../testing/desk";
import { Ended } from "./ended";

const ADA = { name: "ada", demo: false, owner: true };

describe("a session that has ended", () => {
  beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  it("is said once a question meets it, with the way in, until somebody is signed in again", async () => {
    let signedIn = false;
    const refused = () => new Response(JSON.stringify({ message: "Sign in first.", problems: [] }), { status: 401 });
    serve({ "GET /api/session": () => (signedIn ? ADA : refused()), "GET /api/scenes": refused });
    lay(<Ended session={ADA} />);
    expect(screen.queryByRole("alert")).toBeNull();
    await ask(api.GET("/api/scenes")).catch(() => undefined);
    expect(await screen.findByRole("alert")).toHaveTextContent("You are signed out.");
    expect(screen.getByRole("link", { name: "sign in in another tab" })).toHaveAttribute("target", "_blank");
    expect(document.documentElement.style.getPropertyValue("--strip")).toBe("0px");
    await vi.advanceTimersByTimeAsync(4000);
    expect(screen.getByRole("alert")).toBeInTheDocument();
    signedIn = true;
    await vi.advanceTimersByTimeAsync(4000);
    await waitFor(() => {
      expect(screen.queryByRole("alert")).toBeNull();
    });
    expect(document.documentElement.style.getPropertyValue("--strip")).toBe("");
  });
});
