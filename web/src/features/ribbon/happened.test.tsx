import { screen } from "@testing-library/react";
import { scaleLinear } from "d3-scale";
import { describe, expect, it } from "vitest";

import type { RunNow } from "../../api/types";
import { lay, SCENE, serve } from "../../testing/desk";
import { ENTRY } from "../../testing/loop";
import { Entries, happenedOf, hoursFrom, Started } from "./happened";

const [first, second] = SCENE.pours.map((pour) => pour.id);
const event = (kind: string, at: string, more: object) => ({ id: `${kind} ${at}`, kind, at, ...more });

describe("what happened on the days", () => {
  it("counts from the first pour that was made; what was undone counts not", () => {
    const slip = event("pouring", "2027-03-05T07:00:00Z", { pour_id: first });
    const events = [
      slip,
      event("undone", "2027-03-05T07:01:00Z", { event_id: slip.id }),
      event("pouring", "2027-03-05T09:00:00Z", { pour_id: first }),
      event("pouring", "2027-03-06T13:30:00Z", { pour_id: second }),
    ] as unknown as RunNow["events"];
    const told = happenedOf(SCENE, events);
    expect(told?.first_at).toBe("2027-03-05T09:00:00Z");
    expect(told?.starts_h.slice(0, 3)).toEqual([0, 28.5, null]);
    expect(happenedOf(SCENE, [])).toBeNull();
  });
  it("leads from what was meant to what was, and shows entries where they fall", async () => {
    serve({ "GET /api/scenes/7/entries": [ENTRY] });
    const time = scaleLinear([0, 240], [100, 580]);
    const { container } = lay(
      <svg>
        <Started meant_h={24} was_h={30} y={10} time={time} />
        <Entries happened={{ first_at: "2027-03-08T10:00:00Z", starts_h: [0] }} y={40} time={time} />
      </svg>,
    );
    expect(container.querySelector("circle")).toHaveAttribute("cx", "160");
    expect(await screen.findByText("bubbles: cloud of them")).toBeInTheDocument();
    expect(hoursFrom("2027-03-08T10:00:00Z", ENTRY.at)).toBe(96);
  });
});
