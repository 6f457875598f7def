import { Box, Flex, Grid, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";

import { ask } from "../api/ask";
import { api } from "../api/client";
import type { SceneRow } from "../api/types";
import { useSession } from "../desk/use-session";
import { type Glances, NextHour, Piece, useGlances } from "../features/pieces";
import { BringFile } from "../ui/bring-file";
import { Deed } from "../ui/pill";
import { Problem } from "../ui/problem";
import { bringScene } from "./bring-scene";
import { Earlier } from "./earlier";
import { Deeds, Gone } from "./piece-deeds";

/** The pieces of the person, the next hour that matters, and the ways to another piece. */
export function FirstPage() {
  const scenes = useQuery({ queryKey: ["scenes"], queryFn: () => ask(api.GET("/api/scenes")) });
  return (
    <Box as="main" maxWidth="1184px" margin="0 auto" padding={{ base: "20px 16px", md: "28px 24px 60px" }}>
      <Flex
        align="baseline"
        gap="8"
        rowGap="2"
        wrap="wrap"
        borderBottom="1px solid"
        borderColor="ink"
        paddingBottom="16px"
      >
        <Heading as="h1" fontSize="32px" fontWeight={800} letterSpacing="0.01em">
          Gondola
        </Heading>
        <Box color="soft" fontSize="18px">
          What will happen when a deep scene is cast in clear resin.
        </Box>
        <Ways />
      </Flex>
      <Problem>{scenes.error?.message}</Problem>
      {scenes.isPending ? (
        <Box color="soft" paddingY="6">
          Looking for your scenes ...
        </Box>
      ) : null}
      {scenes.data ? <Pieces scenes={scenes.data} /> : null}
      <Gone />
    </Box>
  );
}

function Ways() {
  const session = useSession()?.session;
  const go = useNavigate();
  const queries = useQueryClient();
  const bringing = useMutation({
    mutationFn: async (file: File) => bringScene(await file.text()),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ["scenes"] });
      await go(`/scenes/${made.id}/pours`);
    },
  });
  return (
    <Flex gap="4" align="center" marginLeft={{ base: 0, lg: "auto" }} wrap="wrap">
      <Deed asChild>
        <Link to="/begin">Begin a piece</Link>
      </Deed>
      <Box asChild color="depth" textDecoration="underline">
        <Link to="/have">what you have</Link>
      </Box>
      <Box asChild color="depth" textDecoration="underline">
        <Link to="/account">{session?.name ?? "account"}</Link>
      </Box>
      <BringFile
        label="Scene file"
        accept=".json,application/json"
        take={(file) => {
          bringing.mutate(file);
        }}
      >
        bring in a scene file
      </BringFile>
      {bringing.error ? <Problem maxWidth="60ch">{bringing.error.message} Nothing was added.</Problem> : null}
    </Flex>
  );
}

/** Pieces that are sounded at once; older ones stand below by their names. */
const FIRST = 11;

function Pieces({ scenes }: { scenes: SceneRow[] }) {
  const shown = scenes.slice(0, FIRST);
  const glances = useGlances(shown);
  if (scenes.length === 0) return <Nothing />;
  return (
    <>
      <NextHour scenes={shown} glances={glances.of} />
      <FirstWalk scenes={shown} glances={glances} />
      <Grid
        templateColumns={{ base: "1fr", md: "1fr 1fr", lg: "2fr 1fr 1fr" }}
        columnGap={{ base: "24px", lg: "40px" }}
        rowGap="32px"
        marginTop="32px"
      >
        {shown.map((scene, at) => (
          <Box
            key={scene.id}
            gridColumn={at === 0 ? { base: "auto", md: "1 / -1", lg: "1" } : "auto"}
            gridRow={at === 0 ? { base: "auto", lg: "1 / span 2" } : "auto"}
          >
            <Piece
              scene={scene}
              deeds={<Deeds scene={scene} />}
              glance={glances.of.get(scene.id)}
              problem={glances.problems.get(scene.id)}
              large={at === 0}
            />
          </Box>
        ))}
      </Grid>
      <Earlier scenes={scenes.slice(FIRST)} />
    </>
  );
}

/** The smallest piece walks whoever has never poured through a first pour. */
function FirstWalk({ scenes, glances }: { scenes: SceneRow[]; glances: Glances }) {
  const weight = (scene: SceneRow) => glances.of.get(scene.id)?.mix_g ?? Infinity;
  const smallest = scenes.reduce((least, scene) => (weight(scene) < weight(least) ? scene : least));
  if (weight(smallest) === Infinity) return null;
  return (
    <Box color="soft" paddingTop="10px">
      Never poured before?{" "}
      <Box asChild color="depth" textDecoration="underline">
        <Link to={`/scenes/${smallest.id}/tank?walk`}>Walk through a first pour</Link>
      </Box>{" "}
      of {smallest.name}.
    </Box>
  );
}

/** What Gondola is for, to whom nothing stands here yet. */
function Nothing() {
  return (
    <Box maxWidth="62ch" fontSize="18px" lineHeight="1.45" paddingY="8">
      <p>
        You carve a bed, hang fish over it and pour clear resin, thick, in layers. Before you mix a drop, Gondola
        computes how much each layer takes over your bed, how hot it gets, when the next one bonds to it, where air
        stays, what floats, and how the water will look.
      </p>
      <Box as="p" marginTop="4">
        No scene stands here yet. <Link to="/begin">Begin a piece</Link> with five plain questions, or like one of six.
      </Box>
    </Box>
  );
}
