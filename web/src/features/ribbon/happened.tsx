import { useQuery } from "@tanstack/react-query";
import { useLocation } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { RunNow, Scene } from "../../api/types";
import { useNewestRun } from "../../desk/runs";
import { faultWord, useStory } from "../../desk/story";
import type { Scale } from "../../sounding/scales";
import { hoursText } from "../../units/display";

/** What really happened, on the plan's own days: hours from the first pour, null for one that was not made. */
export interface Happened {
  first_at: string;
  starts_h: readonly (number | null)[];
}

/** The newest real run as it was; only the log asks for it. */
export function useHappened(): Happened | null {
  const asked = useLocation().pathname.endsWith("/log");
  const run = useNewestRun(asked);
  const told = useQuery({
    queryKey: ["as happened", run?.id],
    enabled: asked && !!run,
    staleTime: 10_000,
    retry: false,
    queryFn: async () => {
      const whole = await ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: run?.id ?? "" } } }));
      return happenedOf(whole.document, whole.run.events);
    },
  });
  return asked ? (told.data ?? null) : null;
}

/** When each pour of a plan began to run, from the first of them; null where none did. */
export function happenedOf(plan: Scene, events: RunNow["events"]): Happened | null {
  const gone = new Set(events.map((one) => (one.kind === "undone" ? one.event_id : null)));
  const began = plan.pours.map(
    (pour) => events.find((one) => one.kind === "pouring" && one.pour_id === pour.id && !gone.has(one.id))?.at ?? null,
  );
  const first_at = began.filter((one) => one !== null).toSorted()[0];
  if (first_at === undefined) return null;
  return { first_at, starts_h: began.map((at) => (at === null ? null : hoursFrom(first_at, at))) };
}

/** Hours of a moment from another. */
export const hoursFrom = (first_at: string, at: string) =>
  (new Date(at).getTime() - new Date(first_at).getTime()) / 3_600_000;

/** The start of a pour as it was, filled, under the square that was meant; a line leads from one to the other. */
export function Started({ meant_h, was_h, y, time }: { meant_h: number; was_h: number; y: number; time: Scale }) {
  const [from, to] = [time(meant_h), time(was_h)];
  return (
    <g>
      <path d={`M${from} ${y}H${to}`} stroke="var(--ink)" strokeWidth={1} />
      <circle cx={to} cy={y} r={4} fill="var(--ink)">
        <title>{`poured ${hoursText(was_h)} after the first`}</title>
      </circle>
    </g>
  );
}

/** Entries of the log where they fall on the days. */
export function Entries({ happened, y, time }: { happened: Happened; y: number; time: Scale }) {
  const { entries } = useStory();
  const end_h = time.domain()[1] ?? 0;
  return (
    <g role="group" aria-label="Entries of the log on the days">
      {entries.data?.map((entry) => {
        const hours = hoursFrom(happened.first_at, entry.at);
        if (hours < 0 || hours > end_h) return null;
        const word = entry.fault ? faultWord(entry.fault.kind) : entry.kind;
        return (
          <path
            key={entry.id}
            d={`M${time(hours)} ${y}l4 5l-4 5l-4 -5z`}
            fill={entry.fault ? "var(--caution)" : "var(--depth)"}
          >
            <title>{`${word}: ${entry.text}`}</title>
          </path>
        );
      })}
    </g>
  );
}
