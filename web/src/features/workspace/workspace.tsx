import { Box, Flex, Grid } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import { Link, useParams } from "react-router";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";
import type { Remedy, Scene, SceneState } from "../../api/types";
import { type BedTools, BedToolsContext } from "../bed";
import { Flags } from "../flags";
import { Inspector } from "../inspector";
import { Ribbon } from "../ribbon";
import { type Answered, Conflict, useOutcome, useScene } from "../scenes";
import { type Desk, DeskContext } from "./desk";
import { withRemedy } from "./edits";
import { Header } from "./header";
import { Middle } from "./middle";
import { type Stage, stageOf } from "./stages";

export function Workspace() {
  const { sceneId, stage } = useParams();
  const id = Number(sceneId);
  const first = useQuery({
    queryKey: ["scene", id],
    staleTime: 0,
    gcTime: 0,
    queryFn: async () => {
      const { data, error, response } = await api.GET("/api/scenes/{scene_id}", { params: { path: { scene_id: id } } });
      if (data) return data;
      throw refused(error, response.status);
    },
  });
  if (first.error) {
    return (
      <Box padding="12">
        <Box role="alert" marginBottom="4">{first.error.message}</Box>
        <Link to="/">All scenes</Link>
      </Box>
    );
  }
  if (!first.data) return <Box padding="12" color="soft">Unrolling the sheet ...</Box>;
  return <Opened key={id} first={first.data} stage={stageOf(stage)} />;
}

function Opened({ first, stage }: { first: SceneState; stage: Stage }) {
  const work = useScene(first);
  const [trial, setTrial] = useState<Desk["trial"]>(null);
  const shown = trial ? trial.document : work.document;
  const { answered, problem } = useOutcome(shown);
  return (
    <Flex direction="column" height={{ base: "auto", xl: "100vh" }} minHeight="640px" overflow={{ base: "visible", xl: "hidden" }}>
      <Conflict work={work} />
      <Header work={work} stage={stage} problem={problem} />
      {answered ? (
        <Laid work={work} stage={stage} shown={shown} answered={answered} trial={trial} setTrial={setTrial} />
      ) : (
        <Box padding="12" color="soft" role="status">{problem ?? "Sounding the water; the first time takes some seconds ..."}</Box>
      )}
    </Flex>
  );
}

function Laid(props: {
  work: ReturnType<typeof useScene>;
  stage: Stage;
  shown: Scene;
  answered: Answered;
  trial: Desk["trial"];
  setTrial: (trial: Desk["trial"]) => void;
}) {
  const { work, shown, answered, trial, setTrial } = props;
  const hottest = answered.outcome.pours.reduce<{ depth: number; at: number; peak: number; pour: number }>(
    (best, pour) =>
      pour.cure && pour.cure.peak_c > best.peak
        ? { depth: pour.cure.peak_place.depth_mm, at: pour.start_h + pour.cure.peak_at_h, peak: pour.cure.peak_c, pour: pour.number }
        : best,
    { depth: 0, at: 0, peak: -Infinity, pour: 1 },
  );
  const [depth, lower] = useState(() => Math.round(hottest.depth));
  const [at, scrub] = useState(hottest.at);
  const [pourNumber, choosePour] = useState(hottest.pour);
  const [figureId, chooseFigure] = useState<string | null>(null);
  const { outcome, of } = answered;

  const tryOut = useCallback(
    (remedy: Remedy) => {
      setTrial({ remedy, before: trial?.before ?? outcome, document: withRemedy(work.document, remedy) });
    },
    [outcome, setTrial, trial, work.document],
  );
  const endTrial = useCallback(
    (kept: boolean) => {
      if (trial && kept) work.keep(trial.document, trial.remedy.label);
      setTrial(null);
    },
    [setTrial, trial, work],
  );
  const show = useCallback((scene: Scene) => { setTrial(null); work.show(scene); }, [setTrial, work]);
  const keep = useCallback((scene: Scene, note: string) => { setTrial(null); work.keep(scene, note); }, [setTrial, work]);

  const desk = useMemo<Desk>(
    () => ({
      work, scene: shown, outcome, outcomeOf: of,
      units: shown.brief.units,
      depth_mm: Math.min(depth, shown.tank.fill_height_mm), at_h: at, lower, scrub,
      pourNumber: Math.min(pourNumber, shown.pours.length), figureId, choosePour, chooseFigure,
      show, keep, trial, tryOut, endTrial,
    }),
    [work, shown, outcome, of, depth, at, pourNumber, figureId, show, keep, trial, tryOut, endTrial],
  );
  const [tools, setTools] = useState<Omit<BedTools, "take">>({ tool: "raise", size_mm: 24, strength_mm: 2, cut_mm: Math.round(shown.tank.inner_behind_mm / 2) });
  const bedTools = useMemo<BedTools>(() => ({ ...tools, take: (change) => { setTools((now) => ({ ...now, ...change })); } }), [tools]);
  return (
    <DeskContext value={desk}>
      <BedToolsContext value={bedTools}>
      <Grid
        as="main"
        templateAreas={{ base: '"flags" "sounding" "ribbon" "inspector"', md: '"sounding sounding" "ribbon ribbon" "flags inspector"', xl: '"flags sounding inspector" "ribbon ribbon ribbon"' }}
        templateColumns={{ base: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)", xl: "248px minmax(0, 1fr) 256px" }}
        templateRows={{ base: "auto", xl: "minmax(0, 1fr) auto" }}
        flex="1"
        minHeight="0"
      >
        <Box gridArea="flags" borderRight="1px solid" borderColor="hair" overflowY="auto" paddingX="20px" paddingY="10px"><Flags /></Box>
        <Box gridArea="sounding" height={{ base: "600px", xl: "auto" }} minHeight="0" minWidth="0" display="grid"><Middle stage={props.stage} /></Box>
        <Box gridArea="inspector" borderLeft="1px solid" borderColor="hair" overflowY="auto" paddingX="16px" paddingY="10px"><Inspector stage={props.stage} /></Box>
        <Box gridArea="ribbon" minWidth="0"><Ribbon /></Box>
      </Grid>
      </BedToolsContext>
    </DeskContext>
  );
}
