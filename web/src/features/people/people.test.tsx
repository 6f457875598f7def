import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";

import { lay, serve } from "../../testing/desk";
import { Account } from "./account";
import { SignIn, Welcome } from "./entrance";
import { SeenBy } from "./seen-by";
import { ShownPiece } from "./shown";

const KEEPER = { name: "keeper", demo: false, owner: true };
const SEEN = { shares: [{ name: "ada", may: "look" }], links: [], members: ["ada", "bo"] };

describe("the way in", () => {
  it("says what is wrong and keeps what was typed", async () => {
    const asked = serve({});
    lay(<SignIn />);
    await userEvent.type(screen.getByLabelText("name"), "keeper");
    await userEvent.type(screen.getByLabelText("password"), "guess{Enter}");
    expect(await screen.findByRole("alert")).toHaveTextContent("Nothing answers POST /api/session.");
    expect(screen.getByLabelText("name")).toHaveValue("keeper");
    expect(asked.at(-1)?.body).toEqual({ name: "keeper", password: "guess" });
  });
  it("an invitation asks for a name and a password; one for somebody who is here, for a password alone", async () => {
    for (const there of [false, true]) {
      serve({ "GET /api/invitations/t0": { name: "ada", there_already: there } });
      const { unmount } = lay(<Welcome token="t0" />);
      expect(await screen.findByLabelText("password")).toBeInTheDocument();
      const name = screen.queryByLabelText("name that the others will see");
      if (there) expect(name).toBeNull();
      else expect(name).toHaveValue("ada");
      unmount();
    }
  });
  it("says when an invitation was used", async () => {
    serve({});
    lay(<Welcome token="t1" />);
    expect(await screen.findByRole("alert")).toHaveTextContent(/used already, or has lapsed/);
  });
});

describe("who sees a piece", () => {
  it("lets a member look or work, and takes them off", async () => {
    const asked = serve({
      "GET /api/scenes/7/seen-by": SEEN,
      "PUT /api/scenes/7/seen-by": (body: unknown) => ({
        ...SEEN,
        shares: [...SEEN.shares.filter((one) => one.name !== (body as { name: string }).name), body],
      }),
      "DELETE /api/scenes/7/seen-by/ada": { ...SEEN, shares: [] },
    });
    lay(<SeenBy sceneId={7} name="Wagon" close={vi.fn()} />);
    await userEvent.click(await screen.findByRole("button", { name: "let bo work on it" }));
    expect(asked.at(-1)?.body).toEqual({ name: "bo", may: "work" });
    await userEvent.click(screen.getByRole("button", { name: "let work" }));
    await waitFor(() => {
      expect(asked.at(-1)?.body).toEqual({ name: "ada", may: "work" });
    });
    await userEvent.click(screen.getByRole("button", { name: "Take ada off" }));
    expect(await screen.findByRole("button", { name: "let ada look" })).toBeInTheDocument();
  });
  it("makes a link for as long as is chosen and shows it once", async () => {
    const asked = serve({
      "GET /api/scenes/7/seen-by": SEEN,
      "POST /api/scenes/7/links": { path: "/shown/abc", lapses_at: "2027-03-10T10:00:00Z" },
    });
    lay(<SeenBy sceneId={7} name="Wagon" close={vi.fn()} />);
    await userEvent.selectOptions(await screen.findByLabelText("How long the link lasts"), "a week");
    await userEvent.click(screen.getByRole("button", { name: "Make a link" }));
    expect(await screen.findByText(/\/shown\/abc$/)).toBeInTheDocument();
    expect(asked.find((one) => one.path === "POST /api/scenes/7/links")?.body).toEqual({ days: 7 });
  });
});

describe("the account", () => {
  const people = [
    { name: "keeper", owner: true, leaves_at: null },
    { name: "ada", owner: false, leaves_at: "2027-03-10T10:00:00Z" },
  ];
  it("of an owner invites, lets go and keeps", async () => {
    const asked = serve({
      "GET /api/session": KEEPER,
      "GET /api/people": people,
      "POST /api/people/ada/stay": [people[0], { ...people[1], leaves_at: null }],
      "POST /api/people/invitations": { path: "/welcome/xyz", lapses_at: "2027-03-10T10:00:00Z" },
    });
    lay(<Account />);
    await userEvent.click(await screen.findByRole("button", { name: "Keep ada" }));
    expect(await screen.findByRole("button", { name: "Let ada go" })).toBeInTheDocument();
    await userEvent.type(screen.getByLabelText("invite somebody"), "bo{Enter}");
    expect(await screen.findByText(/\/welcome\/xyz$/)).toBeInTheDocument();
    expect(asked.at(-1)?.body).toEqual({ name: "bo", as_owner: false });
  });
  it("of the demo has no password and nobody to invite", async () => {
    serve({ "GET /api/session": { ...KEEPER, demo: true }, "GET /api/people": people });
    lay(<Account />);
    expect(await screen.findByText(/on this machine only/)).toBeInTheDocument();
    for (const label of ["as it is", "invite somebody", "your password"])
      expect(screen.queryByLabelText(label)).toBeNull();
  });
});

describe("what a link shows", () => {
  it("is the piece in its owner's units, and nothing to change", async () => {
    serve({
      "GET /api/shown/t": {
        name: "Wagon",
        changed_at: "2027-03-01T09:00:00Z",
        units: { length: "in", temperature: "f", volume: "floz", mass: "oz" },
        scale: 48,
        inside_mm: [127, 76.2, 101.6],
        resin_ml: 500,
        flags: ["Pour 2 is deep"],
        pours: [
          {
            number: 1,
            resin: "deep-pour resin",
            top_depth_mm: 50.8,
            volume_ml: 250,
            mix_g: 283.5,
            colour: "",
            starts_at: "2027-03-05T09:00",
            peak_c: 50,
          },
        ],
      },
    });
    lay(<ShownPiece token="t" />);
    expect(await screen.findByRole("heading", { name: "Wagon" })).toBeInTheDocument();
    expect(screen.getByText(/122 °F/)).toBeInTheDocument();
    expect(screen.getByText("Pour 2 is deep")).toBeInTheDocument();
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.getByRole("link", { name: "scene file" })).toHaveAttribute("href", "/api/shown/t/file");
  });
  it("says when it has lapsed", async () => {
    serve({});
    lay(<ShownPiece token="gone" />);
    expect(await screen.findByRole("alert")).toHaveTextContent(/lapsed, or was withdrawn/);
  });
});
