import type { View } from "../../api/types";
import { Label } from "../../sounding/label";
import { lengthFigure } from "../../units/display";
import { ChartGround } from "../bed";
import { type Stage, useDesk } from "../workspace";
import { round, useFigureDrag, useMoved } from "./moving";
import { type Frame, planPath } from "./page";

/** The bed from above, as on a survey sheet: tints and contours every 10 mm, and soundings. */
export function Plan({ frame, stage }: { frame: Frame; stage: Stage }) {
  const { scene, outcome, units } = useDesk();
  const { x0, top, bottom, scale, width_mm } = frame;
  return (
    <g role="img" aria-label="The bed from above, with soundings">
      <Label x={x0} y={top - 8} fontSize={14} fill="var(--soft)">from above</Label>
      <Label x={x0 + width_mm * scale} y={top - 8} fontSize={13} fontStyle="italic" textAnchor="end" fill="var(--soft)">{units.length === "in" ? "depths in inches" : "depths in mm"} below the fill line</Label>
      <ChartGround id="plan" frame={frame} heights={scene.bed.heights_mm} fill_mm={scene.tank.fill_height_mm} outline={outcome.section.above.tank_mm} />
      <g clipPath="url(#plan)">
        {outcome.section.soundings.map((one) => (
          <Label key={`${one.x_mm}-${one.behind_mm}`} x={x0 + one.x_mm * scale} y={bottom - one.behind_mm * scale + 4} fontSize={13} fontStyle="italic" textAnchor="middle" fill="#1a4c63" pointerEvents="none">
            {lengthFigure(one.depth_mm, units)}
          </Label>
        ))}
        {outcome.section.above.figures.map((one) => <PlanFigure key={one.figure_id} one={one} frame={frame} movable={stage === "figures"} />)}
      </g>
      {outcome.filling.traps.map((trap) => (
        <circle key={`${trap.x_mm} ${trap.behind_mm}`} cx={x0 + trap.x_mm * scale} cy={bottom - trap.behind_mm * scale} r={4.5} fill="none" stroke="#a8246b" strokeWidth={2}><title>{`${trap.volume_ml.toFixed(2)} ml of air`}</title></circle>
      ))}
    </g>
  );
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
