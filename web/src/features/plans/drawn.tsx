import { Box } from "@chakra-ui/react";
import { scaleLinear } from "d3-scale";
import { useMemo } from "react";

import type { Units } from "../../api/types";
import { usePicture } from "../../desk/use-outcome";
import { Label } from "../../sounding/label";
import { type Frame, sectionPath } from "../../sounding/page";
import { Band, Curve, Limit, Profile } from "../../sounding/profile";
import { DepthContext, span, useDepth } from "../../sounding/scales";
import { useSize } from "../../sounding/size";
import { lengthFigure, lengthText, lengthUnit, temperatureFigure, temperatureUnit } from "../../units/display";
import type { Laid } from "./use-laid";

const TOP = 44;
const HEAT = 150;
const AXIS = 76;
const RIGHT_WORDS = 210;
const NARROW = 900;
const MOST_HEIGHT = 190;

interface NewLine {
  depth_mm: number;
  words: string;
}

interface Both {
  own: Laid;
  other: Laid | null;
  newLines: readonly NewLine[];
  units: Units;
}

/** Two plans on one depth axis: a section each, and the heat of both between them. */
export function Drawn(both: Both) {
  const [box, size] = useSize();
  return (
    <Box ref={box} as="section" aria-label="Plans beside each other" minWidth="0">
      {size.width === 0 ? null : size.width < NARROW ? (
        <Stacked {...both} width={size.width} />
      ) : (
        <Wide {...both} width={size.width} />
      )}
    </Box>
  );
}

function frameOf(laid: Laid, x0: number, width: number): Frame {
  const { tank } = laid.scene;
  const scale = Math.min(width / tank.inner_width_mm, MOST_HEIGHT / tank.fill_height_mm);
  return {
    x0,
    top: TOP,
    bottom: TOP + tank.fill_height_mm * scale,
    scale,
    width_mm: tank.inner_width_mm,
    fill_mm: tank.fill_height_mm,
  };
}

function useAxis(frame: Frame) {
  return useMemo(
    () => ({
      depth: scaleLinear([0, frame.fill_mm], [frame.top, frame.bottom]),
      top: frame.top,
      bottom: frame.bottom,
    }),
    [frame.fill_mm, frame.top, frame.bottom],
  );
}

function Wide({ own, other, newLines, units, width }: Both & { width: number }) {
  const room = (width - AXIS - HEAT - RIGHT_WORDS - 60) / 2;
  const left = frameOf(own, 0, room);
  const heatX = left.width_mm * left.scale + AXIS;
  const right = frameOf(other ?? own, heatX + HEAT + 60, room);
  const axis = useAxis(left);
  return (
    <DepthContext value={axis}>
      <svg width={width} height={left.bottom + 24}>
        <Section laid={own} frame={left} bold={[]} units={units} />
        <Depths x={heatX - 20} laid={own} units={units} />
        <Heat x={heatX} own={own} other={other} units={units} />
        {other ? <Section laid={other} frame={right} bold={newLines} units={units} /> : null}
      </svg>
    </DepthContext>
  );
}

function Stacked({ own, other, newLines, units, width }: Both & { width: number }) {
  const frame = frameOf(own, 0, width - 8);
  const axis = useAxis(frame);
  return (
    <DepthContext value={axis}>
      <svg width={width} height={frame.bottom + 10}>
        <Section laid={own} frame={frame} bold={[]} units={units} />
      </svg>
      {other ? (
        <svg width={width} height={frame.bottom + 10}>
          <Section laid={other} frame={frameOf(other, 0, width - 8)} bold={newLines} units={units} />
        </svg>
      ) : null}
      <svg width={width} height={frame.bottom + 24}>
        <Depths x={56} laid={own} units={units} />
        <Heat x={76} own={own} other={other} units={units} />
      </svg>
    </DepthContext>
  );
}

/** A plan as its water will look, with its lines; those that only it has are heavier and say how they show. */
function Section({ laid, frame, bold, units }: { laid: Laid; frame: Frame; bold: readonly NewLine[]; units: Units }) {
  const { depth } = useDepth();
  const made = usePicture(laid.scene, "front");
  const width = frame.width_mm * frame.scale;
  const { pours } = laid.scene;
  const { demould_h } = laid.outcome.whole;
  const cut = [[0, 0], ...laid.outcome.section.front.bed_cut_mm, [frame.width_mm, 0]];
  return (
    <g role="img" aria-label={`${laid.name}, in section`}>
      <Label x={frame.x0} y={20} fontSize={18} fontWeight={800} fill="var(--ink)">
        {laid.name}
      </Label>
      <Label x={frame.x0} y={36} fontSize={14} fill="var(--soft)">
        {`${pours.length} ${pours.length === 1 ? "pour" : "pours"}${demould_h === null ? "" : `, ${(demould_h / 24).toFixed(1)} d`}`}
      </Label>
      <rect
        x={frame.x0}
        y={frame.top}
        width={width}
        height={frame.bottom - frame.top}
        fill="var(--wash)"
        stroke="var(--hair)"
      />
      {made ? (
        <image
          href={made.address}
          x={frame.x0}
          y={frame.top}
          width={width}
          height={frame.bottom - frame.top}
          preserveAspectRatio="none"
        />
      ) : null}
      <path d={`${sectionPath(cut, frame)}Z`} fill="var(--bed)" stroke="var(--ink)" strokeWidth={0.8} />
      {pours.slice(0, -1).map((pour) => {
        const fresh = bold.find((one) => Math.abs(one.depth_mm - pour.top_depth_mm) < 0.6);
        const y = depth(pour.top_depth_mm);
        return (
          <g key={pour.id}>
            <path d={`M${frame.x0} ${y}h${width}`} stroke="var(--depth)" strokeWidth={fresh ? 2.6 : 1.4} />
            {fresh ? (
              <Label x={frame.x0 + width + 8} y={y + 4} fontSize={13} fontStyle="italic" fill="var(--depth)">
                {`new at ${lengthText(pour.top_depth_mm, units)}: ${fresh.words.split(",")[0] ?? ""}`}
              </Label>
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

function Depths({ x, laid, units }: { x: number; laid: Laid; units: Units }) {
  const { depth, top } = useDepth();
  const fill = laid.scene.tank.fill_height_mm;
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((share) => Math.round(fill * share));
  return (
    <g fill="var(--depth)">
      <Label x={x} y={top - 14} fontSize={14} fontStyle="italic" textAnchor="end">
        {`depth, ${lengthUnit(units)}`}
      </Label>
      {ticks.map((at) => (
        <Label key={at} x={x} y={depth(at) + 5} fontSize={15} fontStyle="italic" textAnchor="end">
          {lengthFigure(at, units)}
        </Label>
      ))}
    </g>
  );
}

/** Peaks by depth: the own plan dashed, the other drawn through, each in its band. */
function Heat({ x, own, other, units }: { x: number; own: Laid; other: Laid | null; units: Units }) {
  const both = other ? [own, other] : [own];
  const limits = own.outcome.limits;
  const limit = limits.reduce((least, one) => (one.limit_c < least.limit_c ? one : least));
  const values = both.flatMap(({ outcome }) => [...outcome.heat.high_c, ...outcome.heat.low_c]);
  const [low, top] = span(values, [18, limit.limit_c + 8]);
  const high = Math.min(120, top);
  const scaled = ({ outcome }: Laid) => ({
    depths: outcome.heat.depth_mm,
    domain: [low, high] as const,
    width: HEAT,
  });
  const { bottom } = useDepth();
  const shown = other ?? own;
  return (
    <Profile x={x} width={HEAT} title="heat" under={`peak ${temperatureUnit(units)}`}>
      <Band
        {...scaled(shown)}
        low={shown.outcome.heat.low_c}
        high={shown.outcome.heat.high_c}
        ink="var(--caution-wash)"
      />
      <Limit at={limit.limit_c} domain={[low, high]} width={HEAT} word={limit.name} />
      {other ? (
        <g strokeDasharray="4 3">
          <Curve {...scaled(own)} values={own.outcome.heat.peak_c} ink="var(--soft)" weight={1.6} />
        </g>
      ) : null}
      <Curve {...scaled(shown)} values={shown.outcome.heat.peak_c} ink="var(--ink)" weight={2.2} />
      <g fill="var(--soft)">
        <Label x={0} y={bottom + 14} fontSize={13}>
          {temperatureFigure(low, units)}
        </Label>
        <Label x={HEAT} y={bottom + 14} fontSize={13} textAnchor="end">
          {temperatureFigure(high, units)}
        </Label>
      </g>
    </Profile>
  );
}
