import { Box, Flex } from "@chakra-ui/react";
import { useCallback, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Front, Scene } from "../../api/types";
import { useJob } from "../../jobs/use-job";
import { Deed, Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Tick } from "../../ui/row";
import { Working } from "../../ui/working";

type Goal = Front["plans"][number]["goals"][number];
const GOALS: readonly (readonly [Goal, string])[] = [
  ["soonest", "soonest"],
  ["fewest", "fewest sessions"],
  ["surest", "least chance of trouble"],
  ["clearest", "clearest"],
  ["cheapest", "least resin"],
];

const frontOf = (id: string): Promise<Front> =>
  ask(api.GET("/api/jobs/{job_id}/plans", { params: { path: { job_id: id } } }));

/** Asks the queue for plans; the answer belongs to the scene that it was asked of. */
export function useFront(scene: Scene) {
  const [matters, setMatters] = useState<readonly Goal[]>([]);
  const cast = scene.resins.filter((one) => !one.light);
  const [left, leave] = useState<readonly string[]>([]);
  const resins = cast.map((one) => one.id).filter((id) => !left.includes(id));
  const [of, setOf] = useState<Scene | null>(null);
  const begin = useCallback(() => {
    setOf(scene);
    return ask(api.POST("/api/jobs/plans", { body: { scene, resin_ids: resins, matters: [...matters], seed: 1 } }));
  }, [scene, resins, matters]);
  const job = useJob(begin, frontOf);
  return { ...job, matters, setMatters, cast, left, leave, of };
}

/** What matters, which resins are at hand, and the search. */
export function Find({ finding }: { finding: ReturnType<typeof useFront> }) {
  const { matters, setMatters, cast, left, leave, job, busy, start, cancel, problem, result } = finding;
  const share = job?.progress_fraction ?? 0;
  return (
    <Box role="group" aria-label="Find plans">
      <Box color="soft">
        Some 600 ways of pouring are marched on coarse cells; the few that are best at something are shown, checked on
        fine ones.
      </Box>
      <Box marginTop="2">What matters, in the order you choose</Box>
      <Flex gap="2" wrap="wrap" marginTop="1">
        {GOALS.map(([goal, word]) => {
          const at = matters.indexOf(goal);
          return (
            <Pill
              key={goal}
              tone={at < 0 ? "depth" : "ink"}
              bg={at < 0 ? "transparent" : "wash"}
              aria-pressed={at >= 0}
              onClick={() => {
                setMatters(at < 0 ? [...matters, goal] : matters.filter((one) => one !== goal));
              }}
            >
              {at < 0 ? word : `${at + 1}. ${word}`}
            </Pill>
          );
        })}
      </Flex>
      <Box marginTop="3">Resins at hand</Box>
      <Flex gap="4" wrap="wrap">
        {cast.map((one) => (
          <Tick
            key={one.id}
            label={one.name}
            value={!left.includes(one.id)}
            take={(on) => {
              leave(on ? left.filter((id) => id !== one.id) : [...left, one.id]);
            }}
          />
        ))}
      </Flex>
      <Deed marginTop="3" onClick={start} disabled={busy || left.length === cast.length}>
        {result ? "search again" : "find plans"}
      </Deed>
      {busy ? (
        <Working
          label="search"
          share={share}
          words={job?.state === "running" ? `searching, ${Math.round(share * 100)} %` : "waiting its turn"}
          cancel={cancel}
          begun={job !== null}
        />
      ) : null}
      {job?.state === "cancelled" ? <Box color="soft">Ended; nothing was found.</Box> : null}
      <Problem>{problem}</Problem>
    </Box>
  );
}
