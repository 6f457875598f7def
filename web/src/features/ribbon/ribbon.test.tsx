import { fireEvent, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { lay, OUTCOME, SCENE } from "../../testing/desk";
import { Ribbon } from "./ribbon";

describe("Ribbon", () => {
  it("has a square for each pour, and the moment that is looked at", () => {
    lay(<Ribbon />);
    for (const pour of OUTCOME.pours) {
      const square = screen.getByRole("slider", { name: `Start of pour ${pour.number}` });
      expect(square).toHaveAttribute("aria-valuenow", String(pour.clock.start_h));
    }
    expect(screen.getByRole("slider", { name: "Moment" })).toHaveAttribute("aria-valuenow", "32");
  });
  it.each([
    ["ArrowRight", 27],
    ["ArrowLeft", 25],
  ])("waits longer or shorter by %s", (key, wait_h) => {
    const { keep } = lay(<Ribbon />);
    fireEvent.keyDown(screen.getByRole("slider", { name: "Start of pour 2" }), { key });
    expect(keep.mock.calls[0]?.[0].pours[1]?.wait_h).toBe(wait_h);
    expect(keep.mock.calls[0]?.[1]).toBe("wait before pour 2");
  });
  it("leaves the first pour where it begins", () => {
    const { keep } = lay(<Ribbon />);
    fireEvent.keyDown(screen.getByRole("slider", { name: "Start of pour 1" }), { key: "ArrowRight" });
    expect(keep).not.toHaveBeenCalled();
  });
  it.each([
    ["ArrowRight", 33],
    ["PageDown", 20],
    ["PageUp", 44],
  ])("scrubs the days by %s", (key, at_h) => {
    const { scrub } = lay(<Ribbon />);
    fireEvent.keyDown(screen.getByRole("slider", { name: "Moment" }), { key });
    expect(scrub).toHaveBeenCalledWith(at_h);
  });
  it("tells in words what it is like there and then", () => {
    lay(<Ribbon />, { at_h: 32, depth_mm: 70 });
    const words = screen.getByRole("slider", { name: "Moment" }).getAttribute("aria-valuetext");
    expect(words).toMatch(/32 h after the first pour: \d+ °C and \d+ % cured, at 70 mm, room \d+ °C/);
  });
  it("says the bands of tack, hard and coming out on the chosen pour", () => {
    lay(<Ribbon />, { pourNumber: 3 });
    expect(screen.getAllByText(/^tack opens after .* closes after /)).toHaveLength(SCENE.pours.length);
    expect(screen.getByText(/^hard after /)).toBeInTheDocument();
    expect(screen.getByText(/^could come out after /)).toBeInTheDocument();
  });
  it("shows no dam off where it never gets hard", () => {
    const whole = { ...OUTCOME.whole, demould_h: null, demould_at: null, demould_span: null };
    lay(<Ribbon />, { document: { outcome: { ...OUTCOME, whole } } });
    expect(screen.queryByText("dam off")).toBeNull();
  });
});
