import { useCursor, useCursorHands } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { useRef } from "react";

import { useDrag } from "../../sounding/drag";
import { Label } from "../../sounding/label";
import { useDepth } from "../../sounding/scales";
import { lengthFigure, lengthText } from "../../units/display";
import { useReadings } from "../../desk/readings";

/** The cabin on its line: dragged down the depth, it reads out what it is like there. */
export function Gondola({ width }: { width: number }) {
  const desk = useDocument();
  const cursor = useCursor();
  const hands = useCursorHands();
  const { depth, top, bottom } = useDepth();
  const from = useRef(0);
  const most = desk.scene.tank.fill_height_mm;
  const to = (mm: number) => {
    hands.lower(Math.round(Math.min(most, Math.max(0, mm)) * 2) / 2);
  };
  const drag = useDrag(
    () => {
      from.current = depth(cursor.depth_mm);
    },
    ({ dy }) => {
      to(depth.invert(from.current + dy));
    },
  );
  const readings = useReadings();
  const y = depth(cursor.depth_mm);
  return (
    <g>
      <path d={`M30 10V${y - 14}`} stroke="var(--depth)" strokeWidth={1.6} pointerEvents="none" />
      <path d={`M30 ${y + 14}V${bottom}`} stroke="var(--hair)" strokeDasharray="2 4" pointerEvents="none" />
      <path d={`M50 ${y}H${width}`} stroke="var(--depth)" strokeWidth={1.4} pointerEvents="none" />
      <g
        className="rows"
        role="slider"
        tabIndex={0}
        aria-orientation="vertical"
        aria-label="Gondola"
        aria-valuemin={0}
        aria-valuemax={most}
        aria-valuenow={cursor.depth_mm}
        aria-valuetext={`${lengthText(cursor.depth_mm, desk.units, 1)} deep; ${readings.map((one) => `${one.word} ${one.value}`).join("; ")}`}
        onKeyDown={(event) => {
          const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
          if (event.key === "Home") to(0);
          else if (event.key === "End") to(most);
          else if (by) to(cursor.depth_mm + by);
          else return;
          event.preventDefault();
        }}
        {...drag}
      >
        <rect x={4} y={top - 14} width={52} height={bottom - top + 28} fill="transparent" />
        <rect x={11} y={y - 14} width={38} height={28} rx={6} fill="var(--depth)" />
        <rect x={17} y={y - 9} width={26} height={6} rx={2} fill="var(--on-depth)" />
        <Label x={30} y={y + 10} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--on-depth)">
          {lengthFigure(cursor.depth_mm, desk.units)}
        </Label>
      </g>
    </g>
  );
}
