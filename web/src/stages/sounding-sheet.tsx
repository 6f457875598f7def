import { useCursor } from "../desk/cursor";
import { useDocument } from "../desk/document";
import { Box, Flex, VisuallyHidden } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import { useSearchParams } from "react-router";
import { type ComponentType, type ReactNode, useMemo, useState } from "react";

import { DepthContext, tankScale } from "../sounding/scales";
import { How } from "../ui/known";
import { PART } from "../ui/parts";
import { useSize } from "../sounding/size";
import { lengthText } from "../units/display";
import { HeatLayer, PlacePlot } from "../features/heat";
import { type ProfileSet, Profiles, PROFILES_WIDTH, ProfileTables } from "../features/profiles";
import { Bubbles, Gondola, LayerLines, Marks, Plan, TankSection } from "../features/section";
import { useReadings } from "../desk/readings";
import { usePicture } from "../desk/use-outcome";

import type { Frame } from "../sounding/page";

const LEFT = 96;
const TOP = 66;
/** Room of the words over the section. */
const WORDS = 38;
const BASE = 14;
const BETWEEN = 34;
const MARGIN = 12;
/** Below this width section and profiles stand under each other. */
const NARROW = 700;
const NARROW_LEFT = 92;

/** What a stage shows and lets one drag on the sounding. */
export interface Shown {
  profiles: ProfileSet;
  movesFigures: boolean;
  offDisplay: boolean;
  /** entries of the log on the section, and more of them by a press */
  marks?: boolean;
  /** what stands under the section; null for the bed from above */
  Under: ComponentType | null;
}

interface Sheet {
  show: Shown;
  side: boolean;
  heat: boolean;
  words: ReactNode;
}

/** The sounding: section of the tank and profiles on one depth axis, and what its stage wants below. */
export function SoundingSheet(sheet: Sheet) {
  const [box, size] = useSize();
  const side = useSheetSide(sheet.side);
  return (
    <Box
      ref={box}
      position="relative"
      overflow="hidden"
      minWidth="0"
      minHeight={{ base: "auto", xl: "0" }}
      aria-label="Sounding"
      as="section"
    >
      {size.width === 0 ? (
        sheet.words
      ) : size.width < NARROW ? (
        <Narrow {...sheet} {...side} width={size.width} />
      ) : (
        <Wide {...sheet} {...side} size={size} />
      )}
      <VisuallyHidden>
        <ProfileTables />
      </VisuallyHidden>
    </Box>
  );
}

/** True while the inspector tells of bubbles: they are shown where they would hang then. */
function useBubblesAsked(): boolean {
  return useSearchParams()[0].get(PART) === "bubbles";
}

/** The picture of the side that is looked at, and how far it is across. */
function useSheetSide(side: boolean) {
  const { scene } = useDocument();
  const view = side ? "side" : "front";
  const made = usePicture(scene, view);
  return {
    picture: made && made.view === view ? made.address : null,
    across_mm: side ? scene.tank.inner_behind_mm : scene.tank.inner_width_mm,
  };
}

interface Drawn extends Sheet {
  picture: string | null;
  across_mm: number;
}

function Wide({
  show,
  side,
  heat,
  words,
  picture,
  across_mm,
  size,
}: Drawn & { size: { width: number; height: number } }) {
  const { tank } = useDocument().scene;
  const plan = show.Under === null;
  const bubbles = useBubblesAsked();
  const room = {
    width: size.width - LEFT - 30 - PROFILES_WIDTH - MARGIN,
    height: size.height - TOP - BASE - BETWEEN - MARGIN - (plan ? 0 : UNDER_HEIGHT),
  };
  const scale = tankScale(room, {
    width_mm: tank.inner_width_mm,
    behind_mm: plan ? tank.inner_behind_mm : 0,
    fill_mm: tank.fill_height_mm,
  });
  // the rim of the walls stays below the words
  const top = plan ? TOP : Math.max(TOP, WORDS + (tank.wall_height_mm - tank.fill_height_mm) * scale);
  const bottom = top + tank.fill_height_mm * scale;
  const section: Frame = { x0: LEFT, top, bottom, scale, width_mm: across_mm, fill_mm: tank.fill_height_mm };
  const planTop = bottom + BASE + BETWEEN;
  const below: Frame = {
    ...section,
    top: planTop,
    bottom: planTop + tank.inner_behind_mm * scale,
    width_mm: tank.inner_width_mm,
  };
  const profilesX = size.width - PROFILES_WIDTH - MARGIN;
  const frame = useDepthFrame(tank.fill_height_mm, top, bottom);
  return (
    <>
      <Flex position="absolute" left={`${LEFT - 4}px`} top="8px" gap="1" zIndex="1">
        {words}
      </Flex>
      <DepthContext value={frame}>
        <svg width={size.width} height={size.height}>
          <TankSection
            frame={section}
            side={side}
            picture={picture}
            movable={show.movesFigures}
            offDisplay={show.offDisplay}
          />
          {bubbles ? <Bubbles frame={section} side={side} /> : null}
          <Profiles x={profilesX} set={show.profiles} />
          {heat && !side ? <HeatLayer frame={section} /> : null}
          <LayerLines frame={section} right={profilesX + PROFILES_WIDTH} />
          {show.marks && !side ? <Marks frame={section} /> : null}
          {plan ? <Plan frame={below} movable={show.movesFigures} /> : null}
          <Gondola width={profilesX + PROFILES_WIDTH} />
        </svg>
      </DepthContext>
      {show.Under ? (
        <Box
          position="absolute"
          style={{ left: 20, top: bottom + 34, width: profilesX - 44, bottom: 0 }}
          overflowY="auto"
        >
          <show.Under />
        </Box>
      ) : null}
      <Box position="absolute" style={{ left: profilesX, top: bottom + 34, width: PROFILES_WIDTH }}>
        <Readout heat={heat} />
      </Box>
    </>
  );
}

/** Room that is kept below the section for what its stage wants there. */
const UNDER_HEIGHT = 232;

/** On a phone: the section across the whole page, then the readings, the profiles, and what the stage wants. */
function Narrow({ show, side, heat, words, picture, across_mm, width }: Drawn & { width: number }) {
  const { tank } = useDocument().scene;
  const bubbles = useBubblesAsked();
  const scale = Math.min((width - NARROW_LEFT - 34) / across_mm, 420 / tank.fill_height_mm);
  const bottom = 24 + tank.fill_height_mm * scale;
  const section: Frame = { x0: NARROW_LEFT, top: 24, bottom, scale, width_mm: across_mm, fill_mm: tank.fill_height_mm };
  const frame = useDepthFrame(tank.fill_height_mm, 24, bottom);
  const lower = useDepthFrame(tank.fill_height_mm, TOP, bottom - 24 + TOP);
  const planScale = (width - 40) / tank.inner_width_mm;
  const below: Frame = {
    x0: 20,
    top: 24,
    bottom: 24 + tank.inner_behind_mm * planScale,
    scale: planScale,
    width_mm: tank.inner_width_mm,
    fill_mm: tank.fill_height_mm,
  };
  return (
    <>
      <Flex paddingLeft="12px" paddingTop="8px" gap="1" wrap="wrap">
        {words}
      </Flex>
      <DepthContext value={frame}>
        <svg width={width} height={bottom + 24}>
          <TankSection
            frame={section}
            side={side}
            picture={picture}
            movable={show.movesFigures}
            offDisplay={show.offDisplay}
          />
          {bubbles ? <Bubbles frame={section} side={side} /> : null}
          {heat && !side ? <HeatLayer frame={section} /> : null}
          <LayerLines frame={section} right={width - 6} />
          {show.marks && !side ? <Marks frame={section} /> : null}
          <Gondola width={width - 6} />
        </svg>
      </DepthContext>
      <Box paddingX="20px">
        <Readout heat={heat} />
      </Box>
      <Box overflowX="auto" paddingX="20px">
        <DepthContext value={lower}>
          <svg width={PROFILES_WIDTH + 20} height={bottom + TOP} aria-label="Profiles" role="group">
            <Profiles x={4} set={show.profiles} />
          </svg>
        </DepthContext>
      </Box>
      {show.Under ? (
        <Box paddingX="20px" overflowX="auto">
          <show.Under />
        </Box>
      ) : (
        <svg width={width} height={below.bottom + 12}>
          <Plan frame={below} movable={show.movesFigures} />
        </svg>
      )}
    </>
  );
}

function useDepthFrame(fill_mm: number, top: number, bottom: number) {
  return useMemo(() => ({ depth: scaleLinear([0, fill_mm], [top, bottom]), top, bottom }), [fill_mm, top, bottom]);
}

const IN_HEAT = ["pour", "peak", "cured now", "smallest out"];

function Readout({ heat }: { heat: boolean }) {
  const desk = useDocument();
  const cursor = useCursor();
  const [open, setOpen] = useState<string | null>(null);
  const readings = useReadings().filter((one) => !heat || IN_HEAT.includes(one.word));
  return (
    <Box aria-label="At the gondola" as="section">
      <Box fontWeight={800} fontSize="16px">
        At the gondola,{" "}
        <Box as="span" fontStyle="italic" color="depth">
          {lengthText(cursor.depth_mm, desk.units)}
        </Box>
      </Box>
      <Box as="dl" fontSize="14px" margin="0">
        {readings.map((reading) => (
          <Flex key={reading.word} gap="2" align="center" minHeight="25px" borderBottom="1px solid" borderColor="wash">
            <Box as="dt" color="soft" width="78px" flexShrink="0">
              {reading.word}
            </Box>
            <Box as="dd" margin="0" fontWeight={700} color="depth" fontStyle="italic">
              {reading.chip ? (
                <svg width="15" height="12" aria-hidden="true" style={{ display: "inline" }}>
                  <rect width="12" height="12" fill={reading.chip} stroke="var(--hair)" />
                </svg>
              ) : null}
              {reading.known ? (
                <button
                  type="button"
                  title="how is this known?"
                  aria-expanded={open === reading.known}
                  style={{ cursor: "help", textAlign: "left", minHeight: 24 }}
                  onClick={() => {
                    setOpen(open === reading.known ? null : (reading.known ?? null));
                  }}
                >
                  {reading.value}
                </button>
              ) : (
                reading.value
              )}
            </Box>
          </Flex>
        ))}
      </Box>
      {open ? <How id={open} /> : null}
      {heat ? <PlacePlot /> : null}
    </Box>
  );
}
