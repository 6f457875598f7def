import { Box, Progress } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";
import { Deed } from "../../ui/pill";
import { temperatureText } from "../../units/display";
import { useDesk } from "../workspace";

/** The long march on fine cells, worked off by the queue; it goes on if the page is left. */
export function FineCheck() {
  const { work, units, scene } = useDesk();
  const start = useMutation({
    mutationFn: async () => {
      const { data, error, response } = await api.POST("/api/scenes/{scene_id}/fine-runs", { params: { path: { scene_id: work.id } } });
      if (data) return { id: data.id, of: scene };
      throw refused(error, response.status);
    },
  });
  const id = start.data?.id;
  const run = useQuery({
    queryKey: ["fine-run", id],
    enabled: id !== undefined,
    staleTime: 0,
    refetchInterval: (query) => (query.state.data && ["done", "failed"].includes(query.state.data.state) ? false : 400),
    queryFn: async () => {
      const { data, error, response } = await api.GET("/api/fine-runs/{run_id}", { params: { path: { run_id: id ?? "" } } });
      if (data) return data;
      throw refused(error, response.status);
    },
  }).data;
  const outcome = useQuery({
    queryKey: ["fine-outcome", id],
    enabled: run?.state === "done",
    staleTime: Infinity,
    queryFn: async () => {
      const { data, error, response } = await api.GET("/api/fine-runs/{run_id}/outcome", { params: { path: { run_id: id ?? "" } } });
      if (data) return data;
      throw refused(error, response.status);
    },
  }).data;
  const busy = start.isPending || run?.state === "waiting" || run?.state === "running";
  const old = start.data && start.data.of !== scene;
  return (
    <Box marginTop="4">
      <Deed width="100%" onClick={() => { start.mutate(); }} disabled={busy || work.saving.kind !== "saved"}>Check on fine cells</Deed>
      {busy ? (
        <Progress.Root value={(run?.progress_fraction ?? 0) * 100} size="xs" marginTop="2" aria-label="fine march">
          <Progress.Track bg="wash"><Progress.Range bg="depth" /></Progress.Track>
          <Progress.Label fontSize="14px" color="soft">{run?.state === "running" ? `marching, ${Math.round(run.progress_fraction * 100)} %` : "waiting its turn"}</Progress.Label>
        </Progress.Root>
      ) : null}
      {run?.state === "failed" || start.error ? <Box role="alert" color="caution">{run?.message ?? start.error?.message}</Box> : null}
      {outcome ? (
        <Box marginTop="2" fontSize="14px" color={old ? "soft" : "ink"}>
          {old ? "Before your last change: " : `${outcome.march.cell_mm} mm cells: `}
          {outcome.pours.map((pour) => (pour.cure ? `pour ${pour.number} ${temperatureText(pour.cure.peak_c, units, 1)}` : null)).filter(Boolean).join(", ")}
        </Box>
      ) : null}
    </Box>
  );
}
