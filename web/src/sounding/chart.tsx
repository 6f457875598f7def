import { contours } from "d3-contour";
import { geoPath, geoTransform } from "d3-geo";
import { useMemo } from "react";

import { Label } from "./label";
import { type Frame, planPath, shoalTint } from "./page";

const STEP_MM = 10;

export interface Chart {
  frame: Frame;
  heights: readonly (readonly number[])[];
  fill_mm: number;
  /** inner outline of the tank from above */
  outline: readonly (readonly number[])[];
  id: string;
}

/** Tints and contours of a bed from above, every 10 mm of depth, clipped to the tank. */
export function ChartGround({ frame, heights, fill_mm, outline, id }: Chart) {
  const { x0, top, bottom, scale, width_mm } = frame;
  const rows = heights.length;
  const columns = heights[0]?.length ?? 0;
  const rings = useMemo(() => {
    const depths = heights.flat().map((height) => fill_mm - height);
    const levels = [];
    for (let at = STEP_MM; at < fill_mm; at += STEP_MM) levels.push(at);
    return contours().size([columns, rows]).thresholds(levels)(depths);
  }, [columns, fill_mm, heights, rows]);
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
    <g>
      <clipPath id={id}>
        <path d={`${planPath(outline, frame)}Z`} />
      </clipPath>
      <g clipPath={`url(#${id})`}>
        <rect x={x0 - 60} y={top - 60} width={width_mm * scale + 120} height={bottom - top + 120} fill={shoalTint(0)} />
        {rings.map((ring) => (
          <path
            key={ring.value}
            d={draw(ring) ?? ""}
            fill={shoalTint(ring.value / fill_mm)}
            stroke="#1f5a75"
            strokeWidth={ring.value % 50 ? 0.6 : 1.4}
          />
        ))}
      </g>
      <path d={`${planPath(outline, frame)}Z`} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
    </g>
  );
}

/** Chequered scale along an edge of the chart, every 20 mm. */
export function ScaleBar({ frame, y, label }: { frame: Frame; y: number; label: (mm: number) => string }) {
  const marks = [];
  for (let at = 0; at < frame.width_mm; at += 20) marks.push(at);
  return (
    <g>
      {marks.map((at, index) => (
        <g key={at}>
          <rect
            x={frame.x0 + at * frame.scale}
            y={y}
            width={Math.min(20, frame.width_mm - at) * frame.scale}
            height={5}
            fill={index % 2 ? "var(--paper)" : "var(--ink)"}
            stroke="var(--ink)"
            strokeWidth={0.6}
          />
          <Label x={frame.x0 + at * frame.scale} y={y - 5} fontSize={13} textAnchor="middle" fill="var(--soft)">
            {label(at)}
          </Label>
        </g>
      ))}
    </g>
  );
}
