import { useCursor } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { useQuery } from "@tanstack/react-query";

import { api } from "../../api/client";
import { Label } from "../../sounding/label";
import { lengthText, temperatureFigure, temperatureText } from "../../units/display";
import type { Frame } from "../../sounding/page";

import { isotherms, warmth } from "./isotherms";
import { useTouched } from "../../desk/touched";

/** The heat on the section at the scrubbed moment: warmth, isotherms, and the place that was touched. */
export function HeatLayer({ frame }: { frame: Frame }) {
  const desk = useDocument();
  const cursor = useCursor();
  const { touched, touch } = useTouched();
  const { outcome, outcomeOf, units } = desk;
  const at = Math.round(cursor.at_h * 2) / 2;
  const plane = useQuery({
    queryKey: ["plane", outcome.scene_digest, at],
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (old) => old,
    queryFn: () => ask(api.POST("/api/heat/plane", { body: { scene: outcomeOf, at_h: at } })),
  }).data;
  if (!plane) return null;
  const { x0, top, bottom, scale, width_mm } = frame;
  const x = (mm: number) => x0 + mm * scale;
  const y = (mm: number) => top + mm * scale;
  const known = plane.temperature_c.flat().filter((value): value is number => value !== null);
  const [low, high] = [Math.min(...known, 18), Math.max(...known, 22)];
  const edges = (axis: number[], least: number, most: number) =>
    axis.map(
      (at_mm, index) =>
        [
          index ? ((axis[index - 1] ?? 0) + at_mm) / 2 : least,
          index + 1 < axis.length ? (at_mm + (axis[index + 1] ?? 0)) / 2 : most,
        ] as const,
    );
  const columns = edges(plane.x_mm, 0, width_mm);
  const rows = edges(plane.depth_mm, 0, frame.fill_mm);
  return (
    <g
      role="img"
      aria-label={`Heat ${lengthText(plane.behind_mm, units)} behind the glass, ${temperatureText(low, units)} to ${temperatureText(high, units)}`}
    >
      <g pointerEvents="none">
        {plane.temperature_c.map((row, j) =>
          row.map((value, i) => {
            if (value === null) return null;
            const [left, right] = columns[i] ?? [0, 0];
            const [above, below] = rows[j] ?? [0, 0];
            return (
              <rect
                key={`${j} ${i}`}
                x={x(left)}
                y={y(above)}
                width={(right - left) * scale + 0.4}
                height={(below - above) * scale + 0.4}
                fill="#c2185b"
                fillOpacity={warmth(value, low, high)}
              />
            );
          }),
        )}
        {isotherms(plane).map((one) => (
          <g key={one.at_c}>
            {one.rings.map((ring, index) => (
              <path
                key={index}
                d={`M${ring.map(([at_x, at_y]) => `${x(at_x).toFixed(1)} ${y(at_y).toFixed(1)}`).join("L")}Z`}
                fill="none"
                stroke="#4a0d2b"
                strokeWidth={0.9}
              />
            ))}
            {one.rings[0]?.[0] ? (
              <Label
                x={x(one.rings[0][0][0])}
                y={y(one.rings[0][0][1]) - 2}
                fontSize={13}
                fontWeight={700}
                fill="#3a0a22"
                stroke="#f7e3ec"
                strokeOpacity={0.85}
                strokeWidth={3}
                paintOrder="stroke"
              >
                {temperatureFigure(one.at_c, units)}
              </Label>
            ) : null}
          </g>
        ))}
      </g>
      <rect
        x={x0}
        y={top}
        width={width_mm * scale}
        height={bottom - top}
        fill="transparent"
        className="press"
        onClick={(event) => {
          const svg = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
          touch({
            x_mm: Math.round((event.clientX - (svg?.left ?? 0) - x0) / scale),
            depth_mm: Math.round((event.clientY - (svg?.top ?? 0) - top) / scale),
          });
        }}
      >
        <title>press a place for its temperature through time</title>
      </rect>
      {touched ? (
        <path
          d={`M${x(touched.x_mm) - 7} ${y(touched.depth_mm)}h14m-7 -7v14`}
          stroke="var(--ink)"
          strokeWidth={2.2}
          pointerEvents="none"
        />
      ) : null}
    </g>
  );
}
