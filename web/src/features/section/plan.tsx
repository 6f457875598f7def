import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { figureName } from "../../desk/names";
import type { Sounding, View } from "../../api/types";
import { Label } from "../../sounding/label";
import { lengthFigure, volumeText } from "../../units/display";
import { ChartGround } from "../../sounding/chart";

import { useDropped } from "./dropped";
import { round, useFigureDrag, useMoved } from "./moving";
import { type Frame, planPath } from "../../sounding/page";

/** The bed from above, as on a survey sheet: tints and contours every 10 mm, and soundings. */
export function Plan({ frame, movable }: { frame: Frame; movable: boolean }) {
  const { scene, outcome, units } = useDocument();
  const { x0, top, bottom, scale, width_mm } = frame;
  const dropped = useDropped(frame, (across, up) => ({ x_mm: across, behind_mm: up }));
  return (
    <g {...dropped} role="img" aria-label="The bed from above, with soundings">
      <Label x={x0} y={top - 8} fontSize={14} fill="var(--soft)">
        from above
      </Label>
      <Label x={x0 + width_mm * scale} y={top - 8} fontSize={13} fontStyle="italic" textAnchor="end" fill="var(--soft)">
        {units.length === "in" ? "depths in inches" : "depths in mm"} below the fill line
      </Label>
      <ChartGround
        id="plan"
        frame={frame}
        heights={scene.bed.heights_mm}
        fill_mm={scene.tank.fill_height_mm}
        outline={outcome.section.above.tank_mm}
      />
      <g clipPath="url(#plan)">
        {apart(outcome.section.soundings, scale, (one) => lengthFigure(one.depth_mm, units)).map((one) => (
          <Label
            key={`${one.x_mm}-${one.behind_mm}`}
            x={x0 + one.x_mm * scale}
            y={bottom - one.behind_mm * scale + 4}
            fontSize={13}
            fontStyle="italic"
            textAnchor="middle"
            fill="#1a4c63"
            pointerEvents="none"
          >
            {lengthFigure(one.depth_mm, units)}
          </Label>
        ))}
        {outcome.section.above.figures.map((one) => (
          <PlanFigure key={one.figure_id} one={one} frame={frame} movable={movable} />
        ))}
      </g>
      {outcome.filling.traps.map((trap) => (
        <circle
          key={`${trap.x_mm} ${trap.behind_mm}`}
          cx={x0 + trap.x_mm * scale}
          cy={bottom - trap.behind_mm * scale}
          r={4.5}
          fill="none"
          stroke="#a8246b"
          strokeWidth={2}
        >
          <title>{`${volumeText(trap.volume_ml, units, 2)} of air`}</title>
        </circle>
      ))}
    </g>
  );
}

const LETTER_WIDTH = 6.5;

/** Those soundings that have room beside each other: every second column, or third, where their figures are long. */
function apart(all: readonly Sounding[], scale: number, figure: (one: Sounding) => string): readonly Sounding[] {
  const columns = [...new Set(all.map((one) => one.x_mm))].sort((a, b) => a - b);
  const step = ((columns[1] ?? 0) - (columns[0] ?? 0)) * scale;
  const widest = Math.max(...all.map((one) => figure(one).length)) * LETTER_WIDTH;
  const every = step > 0 ? Math.ceil(widest / step) : 1;
  return all.filter((one) => columns.indexOf(one.x_mm) % every === 0);
}

function PlanFigure({ one, frame, movable }: { one: View["figures"][number]; frame: Frame; movable: boolean }) {
  const { scene } = useDocument();
  const choice = useChoice();
  const moved = useMoved(one.figure_id);
  const drag = useFigureDrag(one.figure_id, (place, dx, dy) => ({
    ...place,
    x_mm: round(place.x_mm + dx / frame.scale),
    behind_mm: round(place.behind_mm - dy / frame.scale),
  }));
  if (!moved) return null;
  const chosen = choice.figureId === one.figure_id;
  const dx = moved.x_mm * frame.scale;
  const dy = -moved.behind_mm * frame.scale;
  return (
    <g
      transform={`translate(${dx} ${dy})`}
      className={movable ? "grab" : "press"}
      onClick={() => {
        choice.chooseFigure(one.figure_id);
      }}
      {...(movable ? drag : {})}
    >
      <title>{figureName(scene, one.figure_id)}</title>
      {one.outlines.map((outline, index) => (
        <path
          key={index}
          d={`${planPath(outline.points_mm, frame)}Z`}
          fill="#fbf8ef"
          fillOpacity={0.9}
          stroke={chosen ? "var(--caution)" : "#a8246b"}
          strokeWidth={chosen ? 1.8 : 0.8}
        />
      ))}
    </g>
  );
}
