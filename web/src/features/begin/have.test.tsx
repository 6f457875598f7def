import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { serve, SHELF } from "../../testing/desk";
import { system } from "../../theme";
import { WhatYouHave } from "./have";

const USUAL = {
  resin_id: "deep",
  owned: [],
  units: { length: "mm", temperature: "c", volume: "ml", mass: "g" },
  room_day_c: 22,
  room_night_c: 20,
  free: null,
};

function open(answers: Record<string, unknown> = {}) {
  const asked = serve({
    "GET /api/usual": USUAL,
    "PUT /api/usual": (body: unknown) => body,
    "GET /api/library": SHELF,
    ...answers,
  });
  render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
        <WhatYouHave />
      </QueryClientProvider>
    </ChakraProvider>,
  );
  return { kept: () => asked.filter((one) => one.path === "PUT /api/usual").at(-1)?.body };
}

describe("what a person has", () => {
  it("is kept as it is said: resin, inks, hours, habits", async () => {
    const { kept } = open();
    await userEvent.selectOptions(await screen.findByLabelText("free"), "weekends");
    await userEvent.click(await screen.findByRole("button", { name: "red ink" }));
    await userEvent.selectOptions(screen.getByLabelText("parts are measured by"), "volume");
    await waitFor(() => {
      expect(kept()).toMatchObject({
        free: { weekday: null, weekend: [8, 22] },
        owned: ["red-ink"],
        habits: { measures: "volume" },
      });
    });
    expect(await screen.findByText("kept")).toBeInTheDocument();
  });
  it("turns its own fields to inches and Fahrenheit", async () => {
    open();
    expect(await screen.findByLabelText("room by day")).toHaveValue("22 °C");
    await userEvent.selectOptions(screen.getByLabelText("read and typed in"), "inches");
    await waitFor(() => {
      expect(screen.getByLabelText("room by day")).toHaveValue("71.6 °F");
    });
  });
  it("says what was refused", async () => {
    open({ "PUT /api/usual": undefined });
    await userEvent.selectOptions(await screen.findByLabelText("free"), "days");
    expect(await screen.findByRole("alert")).toBeInTheDocument();
  });
  it("tells own rows that are no longer taken, and lets them go", async () => {
    const row = { kind: "resin", id: "my-deep", own: true, source: "my cup", refused: "Its glass has to rise." };
    open({
      "GET /api/library": { ...SHELF, notes: [...SHELF.notes, row] },
      "DELETE /api/library/resin/my-deep": SHELF,
    });
    expect(await screen.findByText(/Its glass has to rise/)).toBeInTheDocument();
    await userEvent.click(screen.getByRole("button", { name: "let my-deep go" }));
    await waitFor(() => {
      expect(screen.queryByText(/no longer taken/)).toBeNull();
    });
  });
});
