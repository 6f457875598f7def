import { Box, Flex } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { saveBlob } from "../../api/download";
import type { Stand, Turntable } from "../../api/types";
import { useDocument } from "../../desk/document";
import { type FollowedJob, useJob } from "../../jobs/use-job";
import { Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Working } from "../../ui/working";

interface AskedFor {
  of: FollowedJob<unknown>;
  label: string;
  begin: string;
}

/** The pill that begins a picture, or how far it is, and why it was not drawn. */
function Asked({ of: { job, problem, busy, start, cancel }, label, begin }: AskedFor) {
  const share = job?.progress_fraction ?? 0;
  return (
    <>
      {busy ? (
        <Working
          label={label}
          share={share}
          words={`${Math.round(share * 100)} of 100`}
          cancel={cancel}
          begun={job !== null}
        />
      ) : (
        <Pill onClick={start}>{begin}</Pill>
      )}
      <Problem>{problem}</Problem>
    </>
  );
}

/** Stills that are kept with the scene, a turn about the piece, and a card to hand on. */
export function Stills({ stand }: { stand: Stand }) {
  return (
    <Box marginTop="2" role="group" aria-label="Stills">
      <OneStill stand={stand} />
      <Turn stand={stand} />
      <Card stand={stand} />
      <Kept />
    </Box>
  );
}

function useKept() {
  const { work } = useDocument();
  const queries = useQueryClient();
  const path = { scene_id: work.id };
  const rows = useQuery({
    queryKey: ["stills", work.id],
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/stills", { params: { path } })),
  });
  const again = () => queries.invalidateQueries({ queryKey: ["stills", work.id] });
  const keep = useMutation({
    mutationFn: (job_id: string) =>
      ask(api.POST("/api/scenes/{scene_id}/stills", { params: { path }, body: { job_id } })),
    onSuccess: again,
  });
  const drop = useMutation({
    mutationFn: (still_id: number) => ask(api.DELETE("/api/stills/{still_id}", { params: { path: { still_id } } })),
    onSuccess: again,
  });
  return { rows, keep, drop };
}

function OneStill({ stand }: { stand: Stand }) {
  const { scene } = useDocument();
  const { keep } = useKept();
  const begin = useCallback(
    () => ask(api.POST("/api/jobs/still", { body: { scene, stand, width_px: 1600, height_px: 1000 } })),
    [scene, stand],
  );
  const read = useCallback(async (id: string) => Promise.resolve(id), []);
  const job = useJob<string>(begin, read);
  const { result } = job;
  const kept = useRef<string | null>(null);
  const { mutate } = keep;
  useEffect(() => {
    if (!result || kept.current === result) return;
    kept.current = result;
    mutate(result);
  }, [mutate, result]);
  return (
    <>
      <Asked of={job} label="The still" begin="draw a still, 1600 by 1000" />
      <Problem>{keep.error?.message}</Problem>
    </>
  );
}

function Turn({ stand }: { stand: Stand }) {
  const { scene } = useDocument();
  const begin = useCallback(() => ask(api.POST("/api/jobs/turntable", { body: { scene, stand } })), [scene, stand]);
  const read = useCallback(
    (id: string) => ask(api.GET("/api/jobs/{job_id}/turntable", { params: { path: { job_id: id } } })),
    [],
  );
  const job = useJob<Turntable>(begin, read);
  const { result } = job;
  return (
    <Box marginTop="1">
      <Asked of={job} label="The turn" begin="turn it once about" />
      {result ? (
        <Box marginTop="1">
          <img src={`data:image/webp;base64,${result.webp_base64}`} alt="the piece turning" width="100%" />
          <a href={`data:image/webp;base64,${result.webp_base64}`} download="turn.webp">
            keep it as a file
          </a>
        </Box>
      ) : null}
    </Box>
  );
}

function Card({ stand }: { stand: Stand }) {
  const { scene } = useDocument();
  const fetching = useMutation({
    mutationFn: async (file: "png" | "pdf") => {
      const made = await ask(
        api.POST("/api/look/card", { params: { query: { file } }, body: { scene, stand }, parseAs: "blob" }),
      );
      saveBlob(made as unknown as Blob, `card.${file}`);
    },
  });
  return (
    <Flex gap="1" align="baseline" marginTop="1">
      <Box as="span" color="soft">
        card to hand on
      </Box>
      {(["png", "pdf"] as const).map((file) => (
        <Pill
          key={file}
          loading={fetching.isPending}
          onClick={() => {
            fetching.mutate(file);
          }}
        >
          {file.toUpperCase()}
        </Pill>
      ))}
      <Problem>{fetching.error?.message}</Problem>
    </Flex>
  );
}

function Kept() {
  const { rows, drop } = useKept();
  return (
    <Flex gap="2" wrap="wrap" marginTop="2">
      {rows.data?.map((one) => (
        <Box key={one.id} width="112px">
          <a href={`/api/stills/${one.id}/picture`} target="_blank" rel="noreferrer">
            <img
              src={`/api/stills/${one.id}/picture?small=true`}
              alt={`still of revision ${one.revision}`}
              width="112"
            />
          </a>
          <Word
            paddingLeft="0"
            fontSize="14px"
            aria-label={`Take away the still of revision ${one.revision}`}
            onClick={() => {
              drop.mutate(one.id);
            }}
          >
            take away
          </Word>
        </Box>
      ))}
      <Problem>{rows.error?.message ?? drop.error?.message}</Problem>
    </Flex>
  );
}
