import { Box } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Replan, RunNow } from "../../api/types";
import { clockText, dayText, hoursText, moment } from "../../units/display";
import { Target } from "./parts";

/** The next pour as what happened has moved it, and the ways that are open. */
export function Coming({ now, reload }: { now: RunNow; reload: () => Promise<void> }) {
  const params = { path: { run_id: now.id } };
  const found = useQuery({
    queryKey: ["run next", now.id, now.number, now.rehearsal ? now.now : ""],
    staleTime: 60_000,
    queryFn: () => ask(api.GET("/api/runs/{run_id}/next", { params })),
  });
  const take = useMutation({
    mutationFn: (way: Replan["ways"][number]["way"]) =>
      ask(api.POST("/api/runs/{run_id}/next", { params, body: { way } })),
    onSuccess: reload,
  });
  const skip = useMutation({
    mutationFn: (until: string) => ask(api.POST("/api/runs/{run_id}/ahead", { params, body: { until } })),
    onSuccess: reload,
  });
  const next = found.data?.replan;
  if (found.error)
    return (
      <Box role="alert" fontSize="20px">
        {found.error.message}
      </Box>
    );
  if (!next)
    return (
      <Box color="soft" fontSize="20px">
        {found.isPending ? "Reckoning ..." : ""}
      </Box>
    );
  const here = moment(now.local_now).getTime();
  const until = (local: string) => new Date(Date.parse(now.now) + moment(local).getTime() - here).toISOString();
  const way = next.ways[0];
  return (
    <Box fontSize="20px" data-testid="coming">
      <Box fontWeight={700} color={next.missed ? "caution" : "ink"}>
        {next.words}
      </Box>
      {next.warning ? (
        <Box color="caution" fontWeight={700}>
          {next.warning}
        </Box>
      ) : null}
      {next.opens_at && next.closes_at ? (
        <Box>
          Tacky from <When text={next.opens_at} /> to <When text={next.closes_at} />
          {next.opens_early_at && next.opens_late_at
            ? `; it may open from ${dayText(next.opens_early_at)}, ${clockText(next.opens_early_at)} to ${dayText(next.opens_late_at)}, ${clockText(next.opens_late_at)}`
            : ""}
          .
        </Box>
      ) : null}
      {next.ways.map((one) => (
        <Box key={one.way} marginTop="10px">
          <Box>
            <When text={one.start_at} />, in{" "}
            {hoursText(Math.max(0, (moment(one.start_at).getTime() - here) / 3_600_000))}: {one.words}
          </Box>
          {one.way === "planned" ? null : (
            <Target
              minHeight={{ base: "64px", md: "64px" }}
              fontSize={{ base: "20px", md: "20px" }}
              loading={take.isPending}
              onClick={() => {
                take.mutate(one.way);
              }}
            >
              plan it so
            </Target>
          )}
        </Box>
      ))}
      {now.rehearsal && way && moment(way.start_at).getTime() > here ? (
        <Target
          marginTop="10px"
          minHeight={{ base: "64px", md: "64px" }}
          fontSize={{ base: "20px", md: "20px" }}
          loading={skip.isPending}
          onClick={() => {
            skip.mutate(until(way.start_at));
          }}
        >
          let the hours pass
        </Target>
      ) : null}
    </Box>
  );
}

function When({ text }: { text: string }) {
  return (
    <Box as="span" fontWeight={800}>
      {dayText(text)}, {clockText(text)}
    </Box>
  );
}
