import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";
import { type PointerEvent as ReactPointerEvent, useRef, useState } from "react";

import type { Scene } from "../../api/types";
import { useDrag } from "../../sounding/drag";
import { Label } from "../../sounding/label";
import { useSize } from "../../sounding/size";
import { lengthFigure, lengthText } from "../../units/display";
import { type Frame, planPath } from "../../sounding/page";

import { type Hand, type Ground, heightAt, type Spot, touched } from "./hands";
import { ChartGround, ScaleBar } from "../../sounding/chart";
import { useMeasure } from "./measure";
import { useBedTools } from "./tools";

const LEFT = 56;
const RIGHT = 44;
const TOP = 46;
const BETWEEN = 34;
const BELOW = 14;

/** The bed as a survey sheet: brushed or measured from above, mirrored in the section at once. */
export function BedSheet() {
  const { scene, outcome, units } = useDocument();
  const tools = useBedTools();
  const [box, size] = useSize();
  const { tank, bed } = scene;
  const room = { width: size.width - LEFT - RIGHT, height: size.height - TOP - BETWEEN - BELOW };
  const scale = Math.max(
    0.2,
    Math.min(room.width / tank.inner_width_mm, room.height / (tank.inner_behind_mm + tank.fill_height_mm)),
  );
  const x0 = LEFT + Math.max(0, (room.width - tank.inner_width_mm * scale) / 2);
  const plan: Frame = {
    x0,
    top: TOP,
    bottom: TOP + tank.inner_behind_mm * scale,
    scale,
    width_mm: tank.inner_width_mm,
    fill_mm: tank.fill_height_mm,
  };
  const cutTop = plan.bottom + BETWEEN;
  const ground: Ground = {
    heights: bed.heights_mm,
    width_mm: tank.inner_width_mm,
    behind_mm: tank.inner_behind_mm,
    most_mm: tank.wall_height_mm,
  };
  const outline = outcome.section.above.tank_mm;
  const cut = Math.min(tools.cut_mm, tank.inner_behind_mm);
  return (
    <Box ref={box} position="relative" overflow="hidden" minWidth="0" aria-label="Sounding" as="section">
      {size.width > 0 ? (
        <svg width={size.width} height={size.height}>
          <Label x={x0} y={20} fontSize={14} fill="var(--soft)">
            {tank.inner_width_mm * scale > BOTH_WORDS ? "the bed from above, glass below" : "from above"}
          </Label>
          <Label
            x={x0 + tank.inner_width_mm * scale}
            y={20}
            fontSize={13}
            fontStyle="italic"
            textAnchor="end"
            fill="var(--soft)"
          >
            {units.length === "in" ? "depths in inches" : "depths in mm"}
            {tank.inner_width_mm * scale > BOTH_WORDS ? " below the fill line" : ""}
          </Label>
          <ScaleBar frame={plan} y={plan.top - 10} label={(mm) => lengthFigure(mm, units)} />
          <g role="img" aria-label="The bed from above, with soundings">
            <ChartGround
              id="bed-chart"
              frame={plan}
              heights={bed.heights_mm}
              fill_mm={tank.fill_height_mm}
              outline={outline}
            />
            {outcome.section.soundings.map((one) => (
              <Label
                key={`${one.x_mm}-${one.behind_mm}`}
                x={x0 + one.x_mm * scale}
                y={plan.bottom - one.behind_mm * scale + 4}
                fontSize={14}
                fontStyle="italic"
                textAnchor="middle"
                fill="#143f52"
                pointerEvents="none"
              >
                {lengthFigure(tank.fill_height_mm - heightAt(ground, one), units)}
              </Label>
            ))}
            {outcome.section.above.figures.map((one) => (
              <g key={one.figure_id} pointerEvents="none">
                {one.outlines.map((line, index) => (
                  <path
                    key={index}
                    d={`${planPath(line.points_mm, plan)}Z`}
                    fill="none"
                    stroke="#a8246b"
                    strokeDasharray="4 2.5"
                    strokeWidth={1.1}
                  />
                ))}
              </g>
            ))}
            {outcome.filling.traps
              .filter((trap) => trap.figure_id === null)
              .map((trap) => (
                <circle
                  key={`${trap.x_mm}-${trap.behind_mm}`}
                  cx={x0 + trap.x_mm * scale}
                  cy={plan.bottom - trap.behind_mm * scale}
                  r={5}
                  fill="none"
                  stroke="#a8246b"
                  strokeWidth={2}
                />
              ))}
          </g>
          <Brushing frame={plan} ground={ground} />
          <CutLine frame={plan} cut_mm={cut} />
          <CutSection
            frame={{ ...plan, top: cutTop, bottom: cutTop + tank.fill_height_mm * scale }}
            ground={ground}
            cut_mm={cut}
          />
        </svg>
      ) : null}
    </Box>
  );
}

/** Width of the chart from which both of its words stand beside each other. */
const BOTH_WORDS = 380;

/** How hard a pen presses, 1 for its middle; a finger or a mouse says nothing of it. */
const pressure = (event: ReactPointerEvent) => (event.pointerType === "pen" ? 2 * event.pressure : 1);

/** The surface that hands work on; a touch moves a little, a drag moves more. */
function Brushing({ frame, ground }: { frame: Frame; ground: Ground }) {
  const desk = useDocument();
  const tools = useBedTools();
  const { add } = useMeasure();
  const [at, setAt] = useState<Spot | null>(null);
  const work = useRef<{ scene: Scene; from: Spot; last: Spot } | null>(null);
  const spotOf = (event: ReactPointerEvent<SVGElement>): Spot => {
    const svg = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    return {
      x_mm: (event.clientX - (svg?.left ?? 0) - frame.x0) / frame.scale,
      behind_mm: (frame.bottom - (event.clientY - (svg?.top ?? 0))) / frame.scale,
    };
  };
  const stroke = (scene: Scene, spot: Spot, from: Spot, pressed: number): Scene => {
    const heights_mm = touched(
      { ...ground, heights: scene.bed.heights_mm },
      { hand: tools.tool as Hand, wide_mm: tools.wide_mm, each_mm: tools.each_mm * pressed },
      spot,
      from,
    );
    return { ...scene, bed: { ...scene.bed, heights_mm, measured: [] } };
  };
  const finish = () => {
    if (!work.current) return;
    desk.keep(work.current.scene, tools.tool === "type depths" ? "depths" : `bed: ${tools.tool}`);
    work.current = null;
  };
  return (
    <g>
      <rect
        x={frame.x0}
        y={frame.top}
        width={frame.width_mm * frame.scale}
        height={frame.bottom - frame.top}
        fill="transparent"
        className="brush"
        role="application"
        aria-label={`Bed, ${tools.tool}; depths can be typed in the inspector instead`}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          const spot = spotOf(event);
          if (tools.tool === "type depths") {
            add(spot);
            return;
          }
          event.currentTarget.setPointerCapture(event.pointerId);
          const scene = stroke(desk.scene, spot, spot, pressure(event));
          work.current = { scene, from: spot, last: spot };
          desk.show(scene);
        }}
        onPointerMove={(event) => {
          const spot = spotOf(event);
          setAt(spot);
          if (!work.current) return;
          const moved = Math.hypot(spot.x_mm - work.current.last.x_mm, spot.behind_mm - work.current.last.behind_mm);
          if (moved < tools.wide_mm / 6) return;
          const scene = stroke(work.current.scene, spot, work.current.from, pressure(event));
          work.current = { ...work.current, scene, last: spot };
          desk.show(scene);
        }}
        onPointerUp={finish}
        onPointerCancel={finish}
        onPointerLeave={() => {
          setAt(null);
        }}
      />
      {at && tools.tool !== "type depths" ? (
        <g pointerEvents="none">
          <circle
            cx={frame.x0 + at.x_mm * frame.scale}
            cy={frame.bottom - at.behind_mm * frame.scale}
            r={(tools.wide_mm / 2) * frame.scale}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          <Label
            x={frame.x0 + at.x_mm * frame.scale}
            y={frame.bottom - at.behind_mm * frame.scale - (tools.wide_mm / 2) * frame.scale - 6}
            fontSize={14}
            fontWeight={700}
            textAnchor="middle"
            fill="var(--ink)"
            stroke="#f5f0e3"
            strokeOpacity={0.8}
            strokeWidth={3}
            paintOrder="stroke"
          >
            {tools.tool}
            {tools.tool === "build up" || tools.tool === "carve off"
              ? ` ${lengthText(tools.each_mm, desk.units, 1)}`
              : ""}
          </Label>
        </g>
      ) : null}
      {(desk.scene.bed.measured ?? []).map((one, index) => (
        <g
          key={index}
          pointerEvents="none"
          transform={`translate(${frame.x0 + one.x_mm * frame.scale} ${frame.bottom - one.behind_mm * frame.scale})`}
        >
          <path d="M-5 0H5M0 -5V5" stroke="#a8246b" strokeWidth={2} />
          <Label
            x={7}
            y={-5}
            fontSize={14}
            fontWeight={700}
            fill="#8a1a55"
            stroke="#f5f0e3"
            strokeOpacity={0.8}
            strokeWidth={3}
            paintOrder="stroke"
          >
            {lengthFigure(one.depth_mm, desk.units)}
          </Label>
        </g>
      ))}
    </g>
  );
}

function CutLine({ frame, cut_mm }: { frame: Frame; cut_mm: number }) {
  const tools = useBedTools();
  const { units } = useDocument();
  const from = useRef(0);
  const most = (frame.bottom - frame.top) / frame.scale;
  const to = (mm: number) => {
    tools.take({ cut_mm: Math.round(Math.min(most, Math.max(0, mm))) });
  };
  const drag = useDrag(
    () => {
      from.current = cut_mm;
    },
    ({ dy }) => {
      to(from.current - dy / frame.scale);
    },
  );
  const y = frame.bottom - cut_mm * frame.scale;
  const end = frame.x0 + frame.width_mm * frame.scale;
  return (
    <g>
      <path
        d={`M${frame.x0 - 6} ${y}H${end + 6}`}
        stroke="#a8246b"
        strokeDasharray="9 3 2 3"
        strokeWidth={1.2}
        pointerEvents="none"
      />
      <g
        className="rows"
        role="slider"
        tabIndex={0}
        aria-orientation="vertical"
        aria-label="Where the bed is cut"
        aria-valuemin={0}
        aria-valuemax={most}
        aria-valuenow={cut_mm}
        aria-valuetext={`${lengthText(cut_mm, units)} behind the glass`}
        onKeyDown={(event) => {
          const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10 }[event.key];
          if (!by) return;
          event.preventDefault();
          to(cut_mm + by);
        }}
        {...drag}
      >
        <rect x={end + 4} y={y - 12} width={40} height={24} fill="transparent" />
        <Label x={end + 9} y={y + 4} fontSize={14} fontStyle="italic" fill="var(--caution)">
          cut
        </Label>
      </g>
    </g>
  );
}

function CutSection({ frame, ground, cut_mm }: { frame: Frame; ground: Ground; cut_mm: number }) {
  const { scene, units } = useDocument();
  const { x0, top, bottom, scale, width_mm } = frame;
  const steps = 120;
  const line = Array.from({ length: steps + 1 }, (_, index) => {
    const x_mm = (index / steps) * width_mm;
    return `${x0 + x_mm * scale} ${bottom - heightAt(ground, { x_mm, behind_mm: cut_mm }) * scale}`;
  });
  const marks = [0, 0.25, 0.5, 0.75, 1].map((share) => Math.round(share * scene.tank.fill_height_mm));
  return (
    <g role="img" aria-label={`The bed cut ${lengthText(cut_mm, units)} behind the glass`}>
      <Label x={x0} y={top - 10} fontSize={14} fontStyle="italic" fill="var(--soft)">
        section at the cut, {lengthText(cut_mm, units)} behind the glass
      </Label>
      <rect x={x0} y={top} width={width_mm * scale} height={bottom - top} fill="#cfe5e0" />
      {scene.pours.slice(0, -1).map((pour) => (
        <path
          key={pour.id}
          d={`M${x0} ${top + pour.top_depth_mm * scale}h${width_mm * scale}`}
          stroke="#1f5a75"
          strokeDasharray="2 4"
          strokeWidth={0.8}
        />
      ))}
      <path
        d={`M${x0} ${bottom}L${line.join("L")}L${x0 + width_mm * scale} ${bottom}Z`}
        fill="var(--bed)"
        stroke="var(--ink)"
        strokeWidth={1.1}
      />
      {marks.map((mm) => (
        <Label
          key={mm}
          x={x0 - 8}
          y={top + mm * scale + 5}
          fontSize={15}
          fontStyle="italic"
          textAnchor="end"
          fill="var(--depth)"
        >
          {lengthFigure(mm, units)}
        </Label>
      ))}
    </g>
  );
}
