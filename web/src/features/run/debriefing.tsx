import { Box, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { RunNow } from "../../api/types";

/** A rehearsal talked over: what was done, what it would have come to, what to do otherwise. */
export function Debriefing({ now }: { now: RunNow }) {
  const told = useQuery({
    queryKey: ["debrief", now.id, now.number],
    queryFn: () => ask(api.GET("/api/runs/{run_id}/debrief", { params: { path: { run_id: now.id } } })),
  });
  if (told.error) return <Box role="alert">{told.error.message}</Box>;
  if (!told.data) return <Box color="soft">Reckoning what it would have come to ...</Box>;
  return (
    <Box fontSize={{ base: "20px", md: "22px" }} maxWidth="46em" role="region" aria-label="Talked over">
      <Heading as="h1" fontSize={{ base: "36px", md: "52px" }} fontWeight={800}>
        Talked over
      </Heading>
      <Said title="What you did" lines={told.data.did} />
      <Said title="What it would have come to" lines={told.data.would} />
      <Said title="What to do otherwise" lines={told.data.better} />
      <Box asChild color="depth" textDecoration="underline">
        <Link to={`/scenes/${now.scene_id}/bench`}>Back to the bench; nothing of this touched the plan</Link>
      </Box>
    </Box>
  );
}

function Said({ title, lines }: { title: string; lines: string[] }) {
  return lines.length ? (
    <Box marginY="14px">
      <Box fontWeight={800}>{title}</Box>
      {lines.map((line) => (
        <Box key={line} borderLeft="4px solid" borderColor="hair" paddingLeft="12px" marginTop="6px">
          {line}
        </Box>
      ))}
    </Box>
  ) : null;
}
