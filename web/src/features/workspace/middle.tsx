import { Box, Flex } from "@chakra-ui/react";
import { lazy, Suspense, useMemo, useState } from "react";

import { Word } from "../../ui/pill";
import { BedSheet } from "../bed";
import { type Place, TouchedContext } from "../heat";
import { SoundingSheet } from "../section";
import { CutSheet } from "../tank";
import type { Stage } from "./stages";

const RoundView = lazy(() => import("../round"));

type View = "front" | "side" | "heat" | "chart" | "round" | "cut list";

/** What stands in the middle of a stage: section, survey sheet, cut list, or the piece turned about. */
export function Middle({ stage }: { stage: Stage }) {
  const [chosen, choose] = useState<{ stage: Stage; view: View } | null>(null);
  const [touched, touch] = useState<Place | null>(null);
  const touching = useMemo(() => ({ touched, touch }), [touched]);
  const views: View[] = stage === "bed" ? ["chart", "front", "side", "round"] : stage === "tank" ? ["front", "side", "round", "cut list"] : stage === "pours" ? ["front", "heat", "side", "round"] : ["front", "side", "round"];
  const view = chosen?.stage === stage && views.includes(chosen.view) ? chosen.view : (views[0] ?? "front");
  const words = views.map((one) => (
    <Word key={one} onClick={() => { choose({ stage, view: one }); }} fontWeight={one === view ? 700 : 400} aria-pressed={one === view}>{one}</Word>
  ));
  if (view === "front" || view === "side" || view === "heat") {
    return (
      <TouchedContext value={touching}>
        <SoundingSheet stage={stage} side={view === "side"} heat={view === "heat"} words={words} />
      </TouchedContext>
    );
  }
  return (
    <Box display="grid" gridTemplateRows="auto minmax(0, 1fr)" minHeight="0" minWidth="0">
      <Flex gap="1" paddingLeft="92px" paddingTop="8px" className="screen-only">{words}</Flex>
      {view === "chart" ? <BedSheet /> : null}
      {view === "cut list" ? <CutSheet /> : null}
      {view === "round" ? (
        <Suspense fallback={<Box padding="12" color="soft">Turning the piece into the light ...</Box>}><RoundView /></Suspense>
      ) : null}
    </Box>
  );
}
