import { useCursor } from "../desk/cursor";
import { useDocument } from "../desk/document";
import { Box, Flex, VisuallyHidden } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import { type ReactNode, useMemo } from "react";

import { DepthContext, tankScale } from "../sounding/scales";
import { useSize } from "../sounding/size";
import { lengthText } from "../units/display";
import { HeatLayer, PlacePlot } from "../features/heat";
import { type ProfileSet, Profiles, PROFILES_WIDTH, ProfileTables } from "../features/profiles";
import { Gondola, LayerLines, Plan, TankSection } from "../features/section";
import { useReadings } from "../desk/readings";
import { usePicture } from "../desk/use-outcome";

import type { Frame } from "../sounding/page";

const LEFT = 96;
const TOP = 66;
const BASE = 14;
const BETWEEN = 34;
const MARGIN = 12;

/** What a stage shows and lets one drag on the sounding. */
export interface Shown {
  profiles: ProfileSet;
  movesFigures: boolean;
  offDisplay: boolean;
}

/** The sounding: section and plan of the tank at one scale, profiles on the same depth axis. */
export function SoundingSheet({
  show,
  side,
  heat,
  words,
}: {
  show: Shown;
  side: boolean;
  heat: boolean;
  words: ReactNode;
}) {
  const desk = useDocument();
  const [box, size] = useSize();
  const made = usePicture(desk.scene, side ? "side" : "front");
  const picture = made && made.view === (side ? "side" : "front") ? made.address : null;
  const { tank } = desk.scene;
  const across_mm = side ? tank.inner_behind_mm : tank.inner_width_mm;
  const room = {
    width: size.width - LEFT - 30 - PROFILES_WIDTH - MARGIN,
    height: size.height - TOP - BASE - BETWEEN - MARGIN,
  };
  const scale = tankScale(room, {
    width_mm: tank.inner_width_mm,
    behind_mm: tank.inner_behind_mm,
    fill_mm: tank.fill_height_mm,
  });
  const bottom = TOP + tank.fill_height_mm * scale;
  const section: Frame = { x0: LEFT, top: TOP, bottom, scale, width_mm: across_mm, fill_mm: tank.fill_height_mm };
  const planTop = bottom + BASE + BETWEEN;
  const plan: Frame = {
    ...section,
    top: planTop,
    bottom: planTop + tank.inner_behind_mm * scale,
    width_mm: tank.inner_width_mm,
  };
  const profilesX = size.width - PROFILES_WIDTH - MARGIN;
  const frame = useMemo(
    () => ({ depth: scaleLinear([0, tank.fill_height_mm], [TOP, bottom]), top: TOP, bottom }),
    [tank.fill_height_mm, bottom],
  );
  return (
    <Box ref={box} position="relative" overflow="hidden" minWidth="0" aria-label="Sounding" as="section">
      <Flex position="absolute" left={`${LEFT - 4}px`} top="8px" gap="1" zIndex="1">
        {words}
      </Flex>
      {size.width > 0 ? (
        <DepthContext value={frame}>
          <svg width={size.width} height={size.height}>
            <TankSection
              frame={section}
              side={side}
              picture={picture}
              movable={show.movesFigures}
              offDisplay={show.offDisplay}
            />
            <Profiles x={profilesX} set={show.profiles} />
            {heat && !side ? <HeatLayer frame={section} /> : null}
            <LayerLines frame={section} right={profilesX + PROFILES_WIDTH} />
            <Plan frame={plan} movable={show.movesFigures} />
            <Gondola width={profilesX + PROFILES_WIDTH} />
          </svg>
        </DepthContext>
      ) : null}
      <Readout left={profilesX} top={bottom + 34} heat={heat} />
      <VisuallyHidden>
        <ProfileTables />
      </VisuallyHidden>
    </Box>
  );
}

const IN_HEAT = ["pour", "peak", "cured now", "smallest out"];

function Readout({ left, top, heat }: { left: number; top: number; heat: boolean }) {
  const desk = useDocument();
  const cursor = useCursor();
  const readings = useReadings().filter((one) => !heat || IN_HEAT.includes(one.word));
  return (
    <Box position="absolute" style={{ left, top, width: PROFILES_WIDTH }} aria-label="At the gondola" as="section">
      <Box fontWeight={800} fontSize="16px">
        At the gondola,{" "}
        <Box as="span" fontStyle="italic" color="depth">
          {lengthText(cursor.depth_mm, desk.units)}
        </Box>
      </Box>
      <Box as="dl" fontSize="14px" margin="0">
        {readings.map((reading) => (
          <Flex key={reading.word} gap="2" borderBottom="1px solid" borderColor="wash" paddingY="2px">
            <Box as="dt" color="soft" width="78px" flexShrink="0">
              {reading.word}
            </Box>
            <Box as="dd" margin="0" fontWeight={700} color="depth" fontStyle="italic">
              {reading.chip ? (
                <svg width="15" height="12" aria-hidden="true" style={{ display: "inline" }}>
                  <rect width="12" height="12" fill={reading.chip} stroke="var(--hair)" />
                </svg>
              ) : null}
              {reading.value}
            </Box>
          </Flex>
        ))}
      </Box>
      {heat ? <PlacePlot /> : null}
    </Box>
  );
}
