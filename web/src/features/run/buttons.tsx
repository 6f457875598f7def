import { Box, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BenchStep } from "../../api/types";
import { needsStart } from "./entered";
import { Target } from "./parts";
import type { Standing } from "./standing";
import type { FollowedRun } from "./use-run";

const FEELS = [
  ["strings", "draws strings"],
  ["prints", "takes a print"],
  ["marks", "a nail marks it"],
  ["dry", "dry"],
] as const;

interface Hands {
  run: FollowedRun;
  step: BenchStep | null;
  left: number | null;
  on: (feels?: string) => void;
  back: () => void;
  note: () => void;
}

/** The few things that hands do: on, back, a note; what a finger found. */
export function Buttons({ run, step, left, on, back, note }: Hands) {
  const ended = run.now?.ended_at != null;
  const end = useMutation({
    mutationFn: (path: "/api/runs/{run_id}/end" | "/api/runs/{run_id}/reopen") =>
      ask(api.POST(path, { params: { path: { run_id: run.now?.id ?? "" } } })),
    onSuccess: run.take,
  });
  if (ended)
    return (
      <Flex>
        <Target
          onClick={() => {
            end.mutate("/api/runs/{run_id}/reopen");
          }}
        >
          take it up again
        </Target>
      </Flex>
    );
  return (
    <Flex gap={{ base: "8px", md: "16px" }} wrap="wrap" position="sticky" bottom="0" bg="paper" paddingY="8px">
      <Target onClick={back}>back</Target>
      <Target onClick={note}>note</Target>
      {step?.asks === "feels"
        ? FEELS.map(([word, said]) => (
            <Target
              key={word}
              flex="1 1 160px"
              onClick={() => {
                on(word);
              }}
            >
              {said}
            </Target>
          ))
        : null}
      {step && step.asks !== "feels" ? (
        <Target
          main
          flex="1 1 300px"
          onClick={() => {
            on();
          }}
        >
          {deed(step, needsStart(step, run), left)}
        </Target>
      ) : null}
      {run.now?.rehearsal || !step ? (
        <Target
          loading={end.isPending}
          onClick={() => {
            end.mutate("/api/runs/{run_id}/end");
          }}
        >
          {run.now?.rehearsal ? "enough: talk it over" : "end the run"}
        </Target>
      ) : null}
    </Flex>
  );
}

/** What the large button says. */
function deed(step: BenchStep, starts: boolean, left: number | null): string {
  if (step.kind === "weigh_a") return "A is in";
  if (step.kind === "weigh_b") return "B is in: start stirring";
  if (step.kind === "colour") return "they are in";
  if (step.kind === "pour" && starts) return "the pour begins";
  if (step.kind === "pour") return step.line_depth_mm === null ? "it is in" : "it is at the line";
  if (left !== null && left > 0) return "done already";
  return "done";
}

/** What comes after this step. */
export function NextUp({ steps, stands }: { steps: readonly BenchStep[]; stands: Standing }) {
  const at = steps.findIndex((one) => one.id === stands.current);
  const coming = at < 0 ? [] : steps.slice(at + 1, at + 4).filter((one) => !stands.done.includes(one.id));
  return (
    <Flex justify="space-between" fontSize="20px" color="soft" wrap="wrap" gap="8px">
      <span>{coming.length ? `next: ${coming.map((one) => one.title).join(", ")}` : ""}</span>
      <Box as="span" fontStyle="italic" display={{ base: "none", md: "inline" }}>
        page keys or pedal: on, back
      </Box>
    </Flex>
  );
}
