import { Box } from "@chakra-ui/react";

import { BedInspector } from "../bed";
import { FiguresInspector } from "../figures";
import { TankInspector } from "../tank";
import { WaterInspector } from "../water";
import type { Stage } from "../workspace";
import { FinishInspector } from "./finish";
import { BenchInspector, LogInspector } from "./later";
import { PoursInspector } from "./pours";

const OF: Record<Stage, () => React.ReactNode> = {
  tank: TankInspector,
  bed: BedInspector,
  figures: FiguresInspector,
  water: WaterInspector,
  pours: PoursInspector,
  bench: BenchInspector,
  finish: FinishInspector,
  log: LogInspector,
};

/** What is selected, a few fields at a time; the stage decides which. */
export function Inspector({ stage }: { stage: Stage }) {
  const Part = OF[stage];
  return <Box as="section" aria-label="Inspector"><Part /></Box>;
}
