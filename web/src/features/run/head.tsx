import { Box, Flex } from "@chakra-ui/react";
import { Link } from "react-router";

import type { BenchStep, RunWhole } from "../../api/types";
import { Word } from "../../ui/pill";
import type { Standing } from "./standing";
import type { FollowedRun } from "./use-run";

/** Which pour, the name, the clock, and how it looks and sounds. */
export function Head({
  run,
  whole,
  loud,
  setLoud,
  at_ms,
}: {
  run: FollowedRun;
  whole: RunWhole;
  loud: boolean;
  setLoud: (loud: boolean) => void;
  at_ms: number;
}) {
  const { step } = run;
  const local = run.now ? Date.parse(`${run.now.local_now.slice(0, 19)}Z`) + (at_ms - Date.parse(run.now.now)) : at_ms;
  return (
    <Flex justify="space-between" align="center" wrap="wrap" columnGap="20px" fontSize="22px" color="soft">
      <Box>
        {step && step.pour_number > 0
          ? `Pour ${step.pour_number} of ${whole.document.pours.length}`
          : step
            ? "Before the first pour"
            : "The end"}
        {step && step.cups_count > 1 && step.cup > 0 ? `, cup ${step.cup} of ${step.cups_count}` : ""}
        {run.now?.rehearsal ? (
          <Box as="span" color="caution" fontWeight={700}>
            {" "}
            rehearsal
          </Box>
        ) : null}
      </Box>
      <Flex align="center" gap="14px" wrap="wrap">
        <Box fontWeight={700} color="ink">
          {new Date(local).toISOString().slice(11, 16)}
        </Box>
        <Word
          fontSize="20px"
          minHeight="44px"
          aria-pressed={loud}
          onClick={() => {
            localStorage.setItem("gondola-loud", loud ? "no" : "yes");
            setLoud(!loud);
          }}
        >
          {loud ? "alarms speak" : "alarms are silent"}
        </Word>
        <Word fontSize="20px" minHeight="44px" onClick={night}>
          night look
        </Word>
        <Box asChild fontStyle="italic" _hover={{ textDecoration: "underline" }}>
          <Link to={`/scenes/${whole.run.scene_id}/bench`}>{whole.name}</Link>
        </Box>
      </Flex>
    </Flex>
  );
}

function night() {
  const on = document.documentElement.classList.toggle("night");
  if (on) localStorage.setItem("gondola-night", "1");
  else localStorage.removeItem("gondola-night");
}

/** A mark a step of this pour: done, now, to come. */
export function Progress({
  steps,
  stands,
  step,
}: {
  steps: readonly BenchStep[];
  stands: Standing;
  step: BenchStep | null;
}) {
  const mine = steps.filter((one) => one.pour_number === (step?.pour_number ?? -1));
  const done = mine.filter((one) => stands.done.includes(one.id)).length;
  if (!mine.length) return null;
  return (
    <Flex
      gap="6px"
      role="progressbar"
      aria-valuenow={done}
      aria-valuemin={0}
      aria-valuemax={mine.length}
      aria-label={`${done} of ${mine.length} steps`}
    >
      {mine.map((one) => (
        <Box
          key={one.id}
          flex="1"
          height="10px"
          bg={one.id === stands.current ? "depth" : stands.done.includes(one.id) ? "ink" : "wash"}
        />
      ))}
    </Flex>
  );
}
