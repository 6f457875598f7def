import { contours } from "d3-contour";
import { geoPath, geoTransform } from "d3-geo";
import { useMemo } from "react";

import type { View } from "../../api/types";
import { Label } from "../../sounding/label";
import { lengthFigure } from "../../units/display";
import { type Stage, useDesk } from "../workspace";
import { round, useFigureDrag, useMoved } from "./moving";
import { type Frame, planPath, shoalTint } from "./page";


const STEP_MM = 10;

/** The bed from above, as on a survey sheet: tints and contours every 10 mm, and soundings. */
export function Plan({ frame, stage }: { frame: Frame; stage: Stage }) {
  const { scene, outcome, units } = useDesk();
  const { x0, top, bottom, scale, width_mm } = frame;
  const { tank, bed } = scene;
  const rings = useMemo(() => depthRings(bed.heights_mm, tank.fill_height_mm), [bed.heights_mm, tank.fill_height_mm]);
  const rows = bed.heights_mm.length;
  const columns = bed.heights_mm[0]?.length ?? 0;
  const draw = useMemo(() => {
    const across = (width_mm * scale) / Math.max(1, columns - 1);
    const away = (bottom - top) / Math.max(1, rows - 1);
    return geoPath(
      geoTransform({
        point(x, y) {
          this.stream.point(x0 + (x - 0.5) * across, bottom - (y - 0.5) * away);
        },
      }),
    );
  }, [bottom, columns, rows, scale, top, width_mm, x0]);
  return (
    <g role="img" aria-label="The bed from above, with soundings">
      <Label x={x0} y={top - 8} fontSize={14} fill="var(--soft)">from above</Label>
      <Label x={x0 + width_mm * scale} y={top - 8} fontSize={13} fontStyle="italic" textAnchor="end" fill="var(--soft)">{units.length === "in" ? "depths in inches" : "depths in mm"} below the fill line</Label>
      <clipPath id="plan"><rect x={x0} y={top} width={width_mm * scale} height={bottom - top} /></clipPath>
      <g clipPath="url(#plan)">
        <rect x={x0} y={top} width={width_mm * scale} height={bottom - top} fill={shoalTint(0)} />
        {rings.map((ring) => (
          <path key={ring.value} d={draw(ring) ?? ""} fill={shoalTint(ring.value / tank.fill_height_mm)} stroke="#1f5a75" strokeWidth={ring.value % 50 ? 0.6 : 1.4} />
        ))}
        {outcome.section.soundings.map((one) => (
          <Label key={`${one.x_mm}-${one.behind_mm}`} x={x0 + one.x_mm * scale} y={bottom - one.behind_mm * scale + 4} fontSize={13} fontStyle="italic" textAnchor="middle" fill="#1a4c63" pointerEvents="none">
            {lengthFigure(one.depth_mm, units)}
          </Label>
        ))}
        {outcome.section.above.figures.map((one) => <PlanFigure key={one.figure_id} one={one} frame={frame} movable={stage === "figures"} />)}
      </g>
      <rect x={x0} y={top} width={width_mm * scale} height={bottom - top} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
    </g>
  );
}

function depthRings(heights: number[][], fill_mm: number) {
  const columns = heights[0]?.length ?? 0;
  const depths = heights.flat().map((height) => fill_mm - height);
  const levels = [];
  for (let at = STEP_MM; at < fill_mm; at += STEP_MM) levels.push(at);
  return contours().size([columns, heights.length]).thresholds(levels)(depths);
}

function PlanFigure({ one, frame, movable }: { one: View["figures"][number]; frame: Frame; movable: boolean }) {
  const desk = useDesk();
  const moved = useMoved(one.figure_id);
  const drag = useFigureDrag(one.figure_id, (place, dx, dy) => ({
    ...place,
    x_mm: round(place.x_mm + dx / frame.scale),
    behind_mm: round(place.behind_mm - dy / frame.scale),
  }));
  if (!moved) return null;
  const chosen = desk.figureId === one.figure_id;
  const dx = moved.x_mm * frame.scale;
  const dy = -moved.behind_mm * frame.scale;
  return (
    <g transform={`translate(${dx} ${dy})`} className={movable ? "grab" : "press"} onClick={() => { desk.chooseFigure(one.figure_id); }} {...(movable ? drag : {})}>
      <title>{one.name}</title>
      {one.outlines.map((outline, index) => (
        <path key={index} d={`${planPath(outline.points_mm, frame)}Z`} fill="#fbf8ef" fillOpacity={0.9} stroke={chosen ? "var(--caution)" : "#a8246b"} strokeWidth={chosen ? 1.8 : 0.8} />
      ))}
    </g>
  );
}
