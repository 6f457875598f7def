import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useNewestRun } from "../../desk/runs";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";

/** Tells the newest run that the dam is off now: when it came off decides much of what is found later. */
export function DamOff() {
  const run = useNewestRun();
  const tell = useMutation({
    mutationFn: (id: string) =>
      ask(
        api.POST("/api/runs/{run_id}/events", {
          params: { path: { run_id: id } },
          body: { events: [{ kind: "demoulded", id: crypto.randomUUID(), at: new Date().toISOString() }] },
        }),
      ),
  });
  if (!run || run.ended_at !== null) return null;
  return (
    <Box marginTop="2">
      {tell.isSuccess ? (
        <Box role="status">It is put down: the dam is off.</Box>
      ) : (
        <Pill
          loading={tell.isPending}
          onClick={() => {
            tell.mutate(run.id);
          }}
        >
          the dam is off now
        </Pill>
      )}
      <Problem>{tell.error?.message}</Problem>
    </Box>
  );
}
