import { Box, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BenchStep } from "../../api/types";
import { Target } from "./parts";
import type { FollowedRun } from "./use-run";

/** What goes wrong in a rehearsal, at its step, until something is done about it. */
export function Mishaps({ run, step }: { run: FollowedRun; step: BenchStep | null }) {
  const meet = useMutation({
    mutationFn: (body: { mishap: string; choice: string }) =>
      ask(api.POST("/api/runs/{run_id}/mishap", { params: { path: { run_id: run.now?.id ?? "" } }, body })),
    onSuccess: run.take,
  });
  const struck = new Set(run.now?.events.flatMap((one) => (one.kind === "struck" ? [one.mishap] : [])));
  const mishap = run.whole?.mishaps.find((one) => one.step_id === step?.id && !struck.has(one.id));
  if (!mishap) return null;
  return (
    <Box
      role="alertdialog"
      aria-label="Mishap"
      border="4px solid"
      borderColor="caution"
      borderRadius="14px"
      padding="16px"
    >
      <Box fontSize={{ base: "24px", md: "30px" }} fontWeight={700}>
        {mishap.words}
      </Box>
      <Flex gap="12px" wrap="wrap" marginTop="12px">
        {mishap.choices.map((one) => (
          <Target
            key={one.id}
            minHeight="72px"
            loading={meet.isPending}
            onClick={() => {
              meet.mutate({ mishap: mishap.id, choice: one.id });
            }}
          >
            {one.words}
          </Target>
        ))}
      </Flex>
      {meet.error ? <Box role="alert">{meet.error.message}</Box> : null}
    </Box>
  );
}
