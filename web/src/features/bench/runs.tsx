import { Box, Flex } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";
import { Caution } from "../../ui/caution";
import { Deed, Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { dateText } from "../../units/display";

const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** Runs of this scene: begin one, take one up again, or rehearse. */
export function Runs() {
  const { work } = useDocument();
  const go = useNavigate();
  const params = { path: { scene_id: work.id } };
  const runs = useQuery({
    queryKey: ["runs", work.id],
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/runs", { params })),
  });
  const begin = useMutation({
    mutationFn: (rehearsal: boolean) =>
      ask(
        api.POST("/api/scenes/{scene_id}/runs", {
          params,
          body: { zone: zone(), rehearsal, seed: Math.floor(Math.random() * 100_000) },
        }),
      ),
    onSuccess: (whole) => go(`/runs/${whole.run.id}`),
  });
  const open = runs.data?.find((one) => !one.rehearsal && !one.ended_at && !one.refused);
  return (
    <>
      <Title aside="the pour day">Bench</Title>
      <Box marginBottom="2">
        One thing at a time, in figures that are read across the bench: on a tablet or a phone beside the scale. Any
        number of devices can follow one run; without a connection it goes on, and is sent later.
      </Box>
      <Flex gap="2" wrap="wrap" align="center">
        {open ? (
          <Deed asChild>
            <Link to={`/runs/${open.id}`}>go on with the run</Link>
          </Deed>
        ) : (
          <Deed
            loading={begin.isPending}
            onClick={() => {
              begin.mutate(false);
            }}
          >
            begin the run
          </Deed>
        )}
        <Pill
          disabled={begin.isPending}
          onClick={() => {
            begin.mutate(true);
          }}
        >
          rehearse it first
        </Pill>
      </Flex>
      <Problem>{begin.error?.message ?? runs.error?.message}</Problem>
      {runs.data?.length ? (
        <Box as="ul" listStyleType="none" padding="0" marginTop="3">
          {runs.data.map((one) => (
            <Box as="li" key={one.id} borderBottom="1px solid" borderColor="wash" paddingY="4px">
              <Box asChild color="depth" textDecoration="underline">
                <Link to={`/runs/${one.id}`}>
                  {one.rehearsal ? "rehearsal" : "run"} of {dateText(one.started_at)},{" "}
                  {new Date(one.started_at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}
                </Link>
              </Box>{" "}
              <Box as="span" color="soft">
                {one.events_count} entered{one.ended_at ? ", over" : ""}
              </Box>
              {one.refused ? <Box color="watch">It cannot be gone on with. {one.refused}</Box> : null}
            </Box>
          ))}
        </Box>
      ) : null}
      <Caution>
        A rehearsal runs on a quick clock with a simulated scale, and things go wrong in it. Nothing of it touches the
        plan.
      </Caution>
    </>
  );
}
