import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { useRef } from "react";

import type { Scene } from "../../api/types";
import { useDrag } from "../../sounding/drag";
import { Label } from "../../sounding/label";
import { apart, useDepth } from "../../sounding/scales";
import { lengthFigure, lengthText } from "../../units/display";
import { snapped, withLine } from "../../desk/edits";
import type { Frame } from "../../sounding/page";

/** Layer lines through section and profiles, with their depths; each can be dragged but the fill line. */
export function LayerLines({ frame, right }: { frame: Frame; right: number }) {
  const { scene, units } = useDocument();
  const { depth, top, bottom } = useDepth();
  const lines = scene.pours.map((pour) => pour.top_depth_mm);
  const figures = apart(
    [scene.tank.fill_height_mm, ...lines].map((at) => depth(at)),
    16,
    top,
    bottom,
  );
  const names = apart(
    lines.map((at, index) => depth((at + (lines[index - 1] ?? scene.tank.fill_height_mm)) / 2)),
    15,
    top + 8,
    bottom - 6,
  );
  const ticks = [];
  for (let at = 10; at < scene.tank.fill_height_mm; at += 10) ticks.push(at);
  return (
    <g>
      {ticks.map((at) => (
        <path key={at} d={`M${frame.x0 - 12} ${depth(at)}h${at % 50 ? 5 : 8}`} stroke="var(--soft)" strokeWidth={0.8} />
      ))}
      <Label
        x={frame.x0 - 18}
        y={(figures[0] ?? bottom) + 5.5}
        textAnchor="end"
        fontSize={17}
        fontStyle="italic"
        fill="var(--depth)"
      >
        {lengthFigure(scene.tank.fill_height_mm, units)}
      </Label>
      {scene.pours.map((pour, index) => (
        <Line
          key={pour.id}
          number={index + 1}
          frame={frame}
          right={right}
          figureAt={figures[index + 1] ?? 0}
          nameAt={names[index] ?? 0}
        />
      ))}
    </g>
  );
}

function Line({
  number,
  frame,
  right,
  figureAt,
  nameAt,
}: {
  number: number;
  frame: Frame;
  right: number;
  figureAt: number;
  nameAt: number;
}) {
  const desk = useDocument();
  const choice = useChoice();
  const { depth } = useDepth();
  const from = useRef<{ scene: Scene; at: number } | null>(null);
  const pour = desk.scene.pours[number - 1];
  const movable = number < desk.scene.pours.length;
  const drag = useDrag(
    () => {
      from.current = { scene: desk.scene, at: pour?.top_depth_mm ?? 0 };
      choice.choosePour(number);
    },
    ({ dy, done }) => {
      if (!from.current || !movable) return;
      const scene = withLine(
        from.current.scene,
        number,
        snapped(
          from.current.at + dy / frame.scale,
          desk.outcome.sights.map((one) => one.bottom_depth_mm),
        ),
      );
      if (!done) desk.show(scene);
      else if (dy) desk.keep(scene, `line of pour ${number}`);
    },
  );
  if (!pour) return null;
  const y = depth(pour.top_depth_mm);
  const end = frame.x0 + frame.width_mm * frame.scale;
  const chosen = choice.pourNumber === number;
  return (
    <g>
      <path d={`M${end + 14} ${y}H${right}`} stroke="var(--hair)" strokeDasharray="3 3" pointerEvents="none" />
      <path
        d={`M${frame.x0} ${y}H${end}`}
        stroke={chosen ? "var(--ink)" : "var(--depth)"}
        strokeWidth={chosen ? 2 : 1.2}
        pointerEvents="none"
      />
      <Label x={frame.x0 - 18} y={figureAt + 5.5} textAnchor="end" fontSize={17} fontStyle="italic" fill="var(--depth)">
        {lengthFigure(pour.top_depth_mm, desk.units)}
      </Label>
      <g
        className="press"
        onClick={() => {
          choice.choosePour(number);
        }}
      >
        <Label
          x={end - 8}
          y={nameAt + 5}
          textAnchor="end"
          fontSize={15}
          fontWeight={chosen ? 800 : 700}
          fill="#23323c"
          stroke="#f5f0e3"
          strokeOpacity={0.75}
          strokeWidth={3}
          paintOrder="stroke"
        >
          pour {number}
        </Label>
      </g>
      {movable ? (
        <g
          className="rows"
          role="slider"
          tabIndex={0}
          aria-orientation="vertical"
          aria-label={`Line of pour ${number}`}
          aria-valuenow={pour.top_depth_mm}
          aria-valuetext={`${lengthText(pour.top_depth_mm, desk.units, 1)} deep`}
          onKeyDown={(event) => {
            const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
            if (!by) return;
            event.preventDefault();
            desk.keep(withLine(desk.scene, number, pour.top_depth_mm + by), `line of pour ${number}`);
          }}
          {...drag}
        >
          <rect x={frame.x0} y={y - 6} width={end - frame.x0 + 22} height={12} fill="transparent" />
          <path d={`M${end + 6} ${y}l11 -7v14Z`} fill={chosen ? "var(--ink)" : "var(--depth)"} />
        </g>
      ) : null}
    </g>
  );
}
