import { Box, Flex } from "@chakra-ui/react";
import { lazy, type ReactNode, Suspense } from "react";

import { BedSheet } from "../features/bed";
import { CutSheet } from "../features/tank";
import { type Shown, SoundingSheet } from "./sounding-sheet";
import type { StageView } from "./stage";

const RoundView = lazy(() => import("../features/round"));
const LookView = lazy(() => import("../features/look"));

const sounding = (word: string, show: Shown, side: boolean, heat: boolean): StageView => ({
  word,
  Part: function Sounding({ words }) {
    return <SoundingSheet show={show} side={side} heat={heat} words={words} />;
  },
});

export const front = (show: Shown) => sounding("front", show, false, false);
export const side = (show: Shown) => sounding("side", show, true, false);
export const heat = (show: Shown) => sounding("heat", show, false, true);

function Under({ words, children }: { words: ReactNode; children: ReactNode }) {
  return (
    <Box display="grid" gridTemplateRows="auto minmax(0, 1fr)" minHeight="0" minWidth="0">
      <Flex gap="1" paddingLeft="92px" paddingTop="8px" className="screen-only">
        {words}
      </Flex>
      {children}
    </Box>
  );
}

export const CHART: StageView = {
  word: "chart",
  Part: ({ words }) => (
    <Under words={words}>
      <BedSheet />
    </Under>
  ),
};
export const CUT_LIST: StageView = {
  word: "cut list",
  Part: ({ words }) => (
    <Under words={words}>
      <CutSheet />
    </Under>
  ),
};
export const ROUND: StageView = {
  word: "round",
  Part: ({ words }) => (
    <Under words={words}>
      <Suspense
        fallback={
          <Box padding="12" color="soft">
            Turning the piece into the light ...
          </Box>
        }
      >
        <RoundView />
      </Suspense>
    </Under>
  ),
};
export const LOOK: StageView = {
  word: "look",
  Part: ({ words }) => (
    <Under words={words}>
      <Suspense
        fallback={
          <Box padding="12" color="soft">
            Setting it on its shelf ...
          </Box>
        }
      >
        <LookView />
      </Suspense>
    </Under>
  ),
};
