import { Box } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";

/** Tells the newest run that the dam is off now: when it came off decides much of what is found later. */
export function DamOff() {
  const { work } = useDocument();
  const runs = useQuery({
    queryKey: ["runs", work.id],
    staleTime: 0,
    retry: false,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/runs", { params: { path: { scene_id: work.id } } })),
  });
  const run = runs.data?.find((one) => !one.rehearsal && one.events_count > 0 && one.ended_at === null);
  const tell = useMutation({
    mutationFn: (id: string) =>
      ask(
        api.POST("/api/runs/{run_id}/events", {
          params: { path: { run_id: id } },
          body: { events: [{ kind: "demoulded", id: crypto.randomUUID(), at: new Date().toISOString() }] },
        }),
      ),
  });
  if (!run) return null;
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
