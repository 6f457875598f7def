import { Box, Grid } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Scene, SceneState, StartRow } from "../../api/types";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";

/** Six pieces of our own, each another kind of work; one of them becomes a scene of the person. */
export function Starts({ now, add }: { now: string; add: (scene: Scene) => Promise<SceneState> }) {
  const rows = useQuery({ queryKey: ["starts"], queryFn: () => ask(api.GET("/api/starts")) });
  return (
    <Box as="section" aria-label="Pieces to start from">
      <Problem>{rows.error?.message}</Problem>
      <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr", lg: "1fr 1fr 1fr" }} columnGap="36px" rowGap="26px">
        {rows.data?.map((row) => (
          <Start key={row.key} row={row} now={now} add={add} />
        ))}
      </Grid>
    </Box>
  );
}

/** Nine in the morning of the day after. */
function dayAfter(now: string): string {
  const day = new Date(`${now.slice(0, 10)}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + 1);
  return `${day.toISOString().slice(0, 10)}T09:00:00`;
}

function Start({ row, now, add }: { row: StartRow; now: string; add: (scene: Scene) => Promise<SceneState> }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const making = useMutation({
    mutationFn: async () => {
      const { scene } = await ask(
        api.POST("/api/starts/{key}", { params: { path: { key: row.key } }, body: { first_pour_at: dayAfter(now) } }),
      );
      return add(scene);
    },
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["scenes"] });
      await go(`/scenes/${made.id}/pours`);
    },
  });
  return (
    <Box as="article" aria-label={row.name}>
      <Box
        asChild
        display="block"
        width="100%"
        aspectRatio={16 / 10}
        objectFit="contain"
        objectPosition="left"
        color="soft"
      >
        <img src={`/api/starts/${row.key}/picture`} alt={`${row.name}, as it will look`} />
      </Box>
      <Box fontSize="18px" fontWeight={800} marginTop="6px">
        {row.name}
      </Box>
      <Box color="soft" marginBottom="6px">
        {row.about}
      </Box>
      <Pill
        aria-label={`Begin like ${row.name}`}
        loading={making.isPending}
        onClick={() => {
          making.mutate();
        }}
      >
        begin like this
      </Pill>
      <Problem>{making.error?.message}</Problem>
    </Box>
  );
}
