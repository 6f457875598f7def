import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { createPortal } from "react-dom";
import { Link, useParams } from "react-router";

import { ask } from "../api/ask";
import { api, readIn } from "../api/client";
import { Refused } from "../api/refusal";
import type { SceneState } from "../api/types";
import { useOutcome } from "../desk/use-outcome";
import { useScene } from "../desk/use-scene";
import { useTrial } from "../desk/use-trial";
import { Flags, FlagsBelow } from "../features/flags";
import { Ribbon } from "../features/ribbon";
import { Walk } from "../features/walk";
import { type Stage, stageOf } from "../stages";
import { WINDOW } from "../ui/window";
import { Conflict } from "./conflict";
import { Desk } from "./desk";
import { Header } from "./header";
import { Keys } from "./keys";
import { Middle } from "./middle";
import { Unread } from "./unread";

export default function Workspace() {
  const { sceneId, stage } = useParams();
  const id = Number(sceneId);
  const first = useQuery({
    queryKey: ["scene", id],
    staleTime: 0,
    gcTime: 0,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}", { params: { path: { scene_id: id } } })),
  });
  if (first.error instanceof Refused && first.error.status === 422) return <Unread id={id} why={first.error.message} />;
  if (first.error) {
    return (
      <Box padding="12">
        <Box role="alert" marginBottom="4">
          {first.error.message}
        </Box>
        <Link to="/">All scenes</Link>
      </Box>
    );
  }
  if (!first.data)
    return (
      <Box padding="12" color="soft">
        Unrolling the sheet ...
      </Box>
    );
  return <Opened key={id} first={first.data} stage={stageOf(stage)} />;
}

function Opened({ first, stage }: { first: SceneState; stage: Stage }) {
  const work = useScene(first);
  const tried = useTrial(work);
  const [tools, setTools] = useState<HTMLElement | null>(null);
  // before anything below asks: what it is told is said in these units
  readIn(tried.shown.brief.units ?? {});
  const { answered, problem } = useOutcome(tried.shown);
  return (
    <Flex
      direction="column"
      height={{ base: "auto", xl: WINDOW }}
      minHeight="640px"
      overflow={{ base: "visible", xl: "hidden" }}
    >
      <Conflict work={work} />
      <Header work={work} stage={stage} problem={problem} tools={setTools} />
      {answered ? (
        <Desk work={work} tried={tried} answered={answered}>
          {tools ? createPortal(<Keys />, tools) : null}
          <Sheet stage={stage} />
        </Desk>
      ) : (
        <Box padding="12" color="soft" role="status">
          {problem ?? "Sounding the water; the first time takes some seconds ..."}
        </Box>
      )}
    </Flex>
  );
}

/** The page: flags, the sounding, what is typed, the days. */
function Sheet({ stage }: { stage: Stage }) {
  return (
    <Grid
      as="main"
      templateAreas={{
        base: stage.typedFirst
          ? '"inspector" "below" "sounding" "ribbon" "flags"'
          : '"below" "sounding" "ribbon" "flags" "inspector"',
        md: '"sounding sounding" "ribbon ribbon" "flags inspector"',
        xl: '"flags sounding inspector" "ribbon ribbon ribbon"',
      }}
      templateColumns={{
        base: "minmax(0, 1fr)",
        md: "minmax(0, 1fr) minmax(0, 1fr)",
        xl: "248px minmax(0, 1fr) 256px",
      }}
      templateRows={{ base: "auto", xl: "minmax(0, 1fr) auto" }}
      flex="1"
      minHeight="0"
    >
      <Box gridArea="below" display={{ base: "block", md: "none" }}>
        <FlagsBelow />
      </Box>
      <Box gridArea="flags" borderRight="1px solid" borderColor="hair" overflowY="auto" paddingX="20px" paddingY="10px">
        <Walk />
        <Flags />
      </Box>
      <Box
        gridArea="sounding"
        height={{ base: "auto", md: "600px", xl: "auto" }}
        minHeight="0"
        minWidth="0"
        display="grid"
      >
        <Middle stage={stage} />
      </Box>
      <Box
        gridArea="inspector"
        borderLeft="1px solid"
        borderColor="hair"
        overflowY="auto"
        paddingX="16px"
        paddingY="10px"
      >
        <Box as="section" aria-label="Inspector">
          <stage.Inspector />
        </Box>
      </Box>
      <Box gridArea="ribbon" minWidth="0">
        <Ribbon />
      </Box>
    </Grid>
  );
}
