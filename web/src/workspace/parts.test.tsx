import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it } from "vitest";

import { lay, serve } from "../testing/desk";
import { Parts } from "../ui/parts";
import { Row } from "../ui/row";

const PEAK = {
  id: "peak",
  word: "peak",
  formula: "marched through time",
  inputs: "resin, room",
  source: "somebody 1973",
  limits: "no convection",
  sure: "the range beside it",
};

describe("a known number", () => {
  it("tells how it is known where it stands, and is put away again", async () => {
    serve({ "GET /api/known": { numbers: [PEAK], words: [] } });
    lay(
      <dl>
        <Row label="peak" known="peak">
          66 °C
        </Row>
      </dl>,
    );
    const number = screen.getByRole("button", { name: "66 °C" });
    expect(number).toHaveAttribute("aria-expanded", "false");
    await userEvent.click(number);
    for (const part of ["marched through time", "resin, room", "somebody 1973", "no convection"])
      expect(await screen.findByText(part)).toBeInTheDocument();
    await userEvent.click(number);
    expect(screen.queryByText("no convection")).toBeNull();
  });
  it("is no button where nothing is known of it", () => {
    lay(
      <dl>
        <Row label="outside">186 mm</Row>
      </dl>,
    );
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("Parts", () => {
  const parts = [
    { word: "one", part: <input aria-label="first" /> },
    { word: "two", part: <p>second</p> },
  ];
  it("shows one part at a time, and keeps what was left in the other", async () => {
    lay(<Parts label="a thing" parts={parts} />);
    await userEvent.type(screen.getByLabelText("first"), "typed");
    expect(screen.queryByText("second")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "two" }));
    expect(screen.getByText("second")).toBeVisible();
    expect(screen.getByLabelText("first")).not.toBeVisible();
    await userEvent.click(screen.getByRole("button", { name: "one" }));
    expect(screen.getByLabelText("first")).toHaveValue("typed");
  });
  it("opens the part that the address names, and the first for one that is not there", () => {
    lay(<Parts label="a thing" parts={parts} />, { address: "/?part=two" });
    expect(screen.getByText("second")).toBeVisible();
    lay(<Parts label="another" parts={parts} />, { address: "/?part=seven" });
    expect(screen.getByLabelText("first")).toBeVisible();
  });
});
