import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it } from "vitest";

import type { Fooled, Stand } from "../../api/types";
import { lay, SCENE, serve, US } from "../../testing/desk";
import LookView from ".";
import { downOf, keyed, walked } from "./stand";
import { lookKey } from "./use-look";

const STAND: Stand = {
  azimuth_deg: 20,
  eye_height_mm: 153.6,
  distance_mm: 450,
  hour: "evening",
  lamp_in: null,
  stops: 0,
  rule: true,
  bubbles: true,
};
const PRESETS = [
  { word: "usual", stand: STAND },
  { word: "above", stand: { ...STAND, azimuth_deg: 15, eye_height_mm: 428 } },
];
const FOOLED: Fooled = {
  figures: [
    {
      figure_id: "wagon",
      face: "front",
      behind_mm: 60,
      seems_mm: 40,
      mirrored_in: ["right"],
      reads_to_mm: 300,
      blur_mm: 0,
      words: ["tipping wagon: 60 mm behind the front, seems at 40 mm.", "It is seen a second time in the right side."],
    },
  ],
  faces: ["Through the front, the right side is a full mirror from every eye."],
  lines: [
    { pour_number: 1, shows: false, words: "Line 1 does not mirror from here." },
    { pour_number: 2, shows: true, words: "Line 2 shows from here as a thin mirror." },
  ],
  top: [],
  limits: [],
};
const STILLS = [{ id: 4, revision: 2, made_at: "2027-03-05T09:00:00Z", width_px: 1600, height_px: 1000, stand: STAND }];

beforeEach(() => {
  sessionStorage.clear();
  URL.createObjectURL = () => "blob:look";
  URL.revokeObjectURL = () => undefined;
});

interface Asked {
  query: URLSearchParams;
  stand: Stand;
}

/** The server's answers; each look that is asked for is written down. */
function served() {
  const looks: Asked[] = [];
  const asked = serve({
    "POST /api/look/presets": PRESETS,
    "POST /api/look/fooled": FOOLED,
    "POST /api/look": (body: unknown, url: URL) => {
      looks.push({ query: url.searchParams, stand: (body as { stand: Stand }).stand });
      return "a picture";
    },
    "GET /api/scenes/7/stills": STILLS,
    "GET /api/scenes/7/entries": [],
    "DELETE /api/stills/4": null,
  });
  return { asked, looks };
}

describe("walking round", () => {
  const middle = 60;
  it.each([
    ["ArrowLeft", { azimuth_deg: 12 }],
    ["ArrowRight", { azimuth_deg: 28 }],
    ["+", { distance_mm: 405 }],
    ["-", { distance_mm: 504 }],
  ])("%s moves the eye", (key, expected) => {
    expect(keyed(STAND, middle, key)).toMatchObject(expected);
  });
  it("leaves other keys alone", () => {
    expect(keyed(STAND, middle, "a")).toBeNull();
  });
  it("keeps the distance when it goes up, and never looks straight down or from under the shelf", () => {
    const up = walked(STAND, middle, { rise: 200 });
    expect(up.distance_mm).toBe(450);
    expect(downOf(up, middle)).toBeCloseTo(80, 1);
    expect(walked(STAND, middle, { rise: -80 }).eye_height_mm).toBe(0);
  });
  it("goes all the way round, and not into the piece", () => {
    expect(walked({ ...STAND, azimuth_deg: 175 }, middle, { turn: 20 }).azimuth_deg).toBe(-165);
    expect(walked(STAND, middle, { closer: 0.01 }).distance_mm).toBe(150);
  });
});

describe("the key of a look", () => {
  it("hears doses and finish, and not the name or the hours", () => {
    const key = lookKey(SCENE);
    expect(lookKey({ ...SCENE, name: "other" })).toBe(key);
    expect(lookKey({ ...SCENE, brief: { ...SCENE.brief, free: null, deadline: "2027-05-01" } })).toBe(key);
    expect(lookKey({ ...SCENE, finish: { ...SCENE.finish, sand_to_grit: 400 } })).not.toBe(key);
    expect(lookKey({ ...SCENE, brief: { ...SCENE.brief, light: "room" } })).not.toBe(key);
  });
});

describe("the look", () => {
  it("is drawn quickly, then at rest, then clear", async () => {
    const { looks } = served();
    lay(<LookView />);
    await waitFor(() => {
      expect(screen.getByText("clear")).toBeInTheDocument();
    });
    expect(looks.map(({ query }) => query.get("care"))).toEqual(["moving", "draft", "clearer"]);
    expect(looks.map(({ query }) => query.get("width"))).toEqual(["320", "640", "800"]);
    const numbers = looks.map(({ query }) => Number(query.get("number")));
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
    expect(screen.getByAltText("as it is now")).toHaveAttribute("src", "blob:look");
  });

  it("walks by keys, and bakes no light anew for it", async () => {
    const { looks } = served();
    const user = userEvent.setup();
    lay(<LookView />);
    await screen.findByText("clear");
    const before = looks.length;
    screen.getByRole("img", { name: /The piece on its shelf/ }).focus();
    await user.keyboard("{ArrowRight}");
    expect(screen.getByRole("img", { name: /28 degrees round/ })).toBeInTheDocument();
    await screen.findByText("clear");
    const [first] = looks.slice(before);
    expect(first?.query.get("care")).toBe("draft");
    expect(first?.stand.azimuth_deg).toBe(28);
  });

  it("says what fools the eye, and more of it when asked", async () => {
    served();
    const user = userEvent.setup();
    lay(<LookView />);
    expect(await screen.findByText(/seems at 40 mm/)).toBeInTheDocument();
    expect(screen.getByText(/Line 2 shows/)).toBeInTheDocument();
    expect(screen.queryByText(/Line 1/)).not.toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "all figures and lines" }));
    expect(screen.getByText(/Line 1/)).toBeInTheDocument();
    expect(screen.getByRole("table", { name: "Where figures seem to be" })).toHaveTextContent("right");
  });

  it("turns the lamp on in a figure", async () => {
    const { looks } = served();
    const user = userEvent.setup();
    lay(<LookView />);
    await user.click(await screen.findByRole("button", { name: "lamp on" }));
    await waitFor(() => {
      expect(looks.at(-1)?.stand).toMatchObject({ hour: "lamp", lamp_in: "wagon" });
    });
    expect(screen.getByRole("combobox", { name: "the lamp is in" })).toHaveValue("wagon");
  });

  it("holds what is there, to lay edits beside it", async () => {
    const { looks } = served();
    const user = userEvent.setup();
    lay(<LookView />);
    await screen.findByText("clear");
    const before = looks.length;
    await user.click(screen.getByRole("button", { name: /hold this/ }));
    expect(await screen.findByRole("slider", { name: "From what it is now to before" })).toBeInTheDocument();
    await user.click(screen.getByRole("button", { name: "let go what was held" }));
    expect(screen.queryByRole("slider")).not.toBeInTheDocument();
    expect(looks.length).toBeGreaterThan(before);
  });

  it("shows stills and takes one away", async () => {
    const { asked } = served();
    const user = userEvent.setup();
    lay(<LookView />);
    await user.click(await screen.findByRole("button", { name: "Take away the still of revision 2" }));
    await waitFor(() => {
      expect(asked.some((one) => one.path === "DELETE /api/stills/4")).toBe(true);
    });
  });

  it("says lengths in inches to who reads them", async () => {
    served();
    lay(<LookView />, { units: US });
    expect(await screen.findByRole("img", { name: /17 11\/16 in away/ })).toBeInTheDocument();
  });

  it("says why nothing is drawn", async () => {
    serve({
      "POST /api/look/presets": PRESETS,
      "POST /api/look/fooled": FOOLED,
      "GET /api/scenes/7/stills": [],
      "GET /api/scenes/7/entries": [],
    });
    lay(<LookView />);
    expect(await screen.findByRole("alert")).toBeInTheDocument();
  });
});
