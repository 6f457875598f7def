import { ChakraProvider } from "@chakra-ui/react";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { system } from "../theme";
import { Entry } from "./row";

const read = (text: string) =>
  text === "2 in" ? Promise.resolve(50.8) : Promise.reject(new Error("Not understood; write it like 65 mm."));

function show(take: (value: number) => void) {
  render(
    <ChakraProvider value={system}>
      <Entry label="depth" shown="52 mm" read={read} take={take} example="65 mm" />
    </ChakraProvider>,
  );
  return screen.getByLabelText("depth");
}

describe("Entry", () => {
  it("takes what is typed in any unit when Enter is pressed", async () => {
    const take = vi.fn();
    const field = show(take);
    await userEvent.clear(field);
    await userEvent.type(field, "2 in{Enter}");
    await waitFor(() => {
      expect(take).toHaveBeenCalledWith(50.8);
    });
  });
  it("says what it cannot read and keeps the words", async () => {
    const take = vi.fn();
    const field = show(take);
    await userEvent.clear(field);
    await userEvent.type(field, "deep{Enter}");
    expect(await screen.findByRole("alert")).toHaveTextContent("write it like 65 mm");
    expect(field).toHaveValue("deep");
    expect(take).not.toHaveBeenCalled();
  });
  it("takes nothing when nothing was changed", async () => {
    const take = vi.fn();
    await userEvent.click(show(take));
    await userEvent.tab();
    expect(take).not.toHaveBeenCalled();
  });
});
