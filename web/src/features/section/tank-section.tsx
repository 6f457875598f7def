import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { figureName } from "../../desk/names";
import type { View } from "../../api/types";
import { lengthText, volumeText } from "../../units/display";

import { useDropped } from "./dropped";
import { round, useFigureDrag, useMoved } from "./moving";
import { depthsOver, type Frame, sectionPath } from "../../sounding/page";

/** The tank in section: water as the core pictures it, the bed where it is cut, the figures. */
export function TankSection({
  frame,
  side,
  picture,
  movable,
  offDisplay,
}: {
  frame: Frame;
  side: boolean;
  picture: string | null;
  movable: boolean;
  offDisplay: boolean;
}) {
  const { outcome, scene, units } = useDocument();
  const view = side ? outcome.section.side : outcome.section.front;
  const { x0, top, bottom, scale, width_mm } = frame;
  const width = width_mm * scale;
  const wall = Math.max(3, scene.tank.wall.thickness_mm * scale);
  const cut = [[0, 0], ...view.bed_cut_mm, [width_mm, 0]];
  const [rimLeft = [0, 0], floorLeft = [0, 0], floorRight = [width_mm, 0], rimRight = [width_mm, 0]] = view.tank_mm;
  const leaning = sectionPath([rimLeft, floorLeft, floorRight, rimRight], frame);
  const side_ = (from: readonly number[], to: readonly number[], out: number) => {
    const page = (point: readonly number[], push: number) =>
      `${x0 + (point[0] ?? 0) * scale + push} ${bottom - (point[1] ?? 0) * scale}`;
    return `M${page(from, 0)}L${page(to, 0)}L${page(to, out)}L${page(from, out)}Z`;
  };
  const dropped = useDropped(frame, (across, up) => ({
    ...(side ? { behind_mm: across } : { x_mm: across }),
    depth_mm: frame.fill_mm - up,
  }));
  return (
    <g {...dropped} role="img" aria-label={`The tank in section, ${side ? "from the side" : "from the front"}`}>
      <defs>
        <clipPath id="inside">
          <path d={`${leaning}Z`} />
        </clipPath>
        <pattern id="air" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V5" stroke="var(--caution)" strokeWidth="2" />
        </pattern>
        <pattern id="late" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0V5" stroke="var(--watch)" strokeWidth="1.6" />
        </pattern>
        <linearGradient id="water" x1="0" x2="0" y1="0" y2="1">
          {outcome.water.backdrop_srgb.map((colour, index, all) => (
            <stop key={index} offset={index / (all.length - 1)} stopColor={colour} />
          ))}
        </linearGradient>
      </defs>
      <path d={side_(rimLeft, floorLeft, -wall)} fill="var(--wall)" stroke="var(--ink)" strokeWidth={0.8} />
      <path d={side_(rimRight, floorRight, wall)} fill="var(--wall)" stroke="var(--ink)" strokeWidth={0.8} />
      <rect
        x={x0 - wall - 4}
        y={bottom}
        width={width + 2 * wall + 8}
        height={12}
        fill="var(--bed)"
        stroke="var(--ink)"
        strokeWidth={0.8}
      />
      <g clipPath="url(#inside)">
        <rect x={x0 - 80} y={top} width={width + 160} height={bottom - top} fill="url(#water)" />
      </g>
      {picture ? (
        <image href={picture} x={x0} y={top} width={width} height={bottom - top} preserveAspectRatio="none" />
      ) : null}
      <g clipPath="url(#inside)">
        {view.figures.map((one) => (
          <FigureShape
            key={one.figure_id}
            one={one}
            frame={frame}
            side={side}
            movable={movable && !side}
            pictured={picture !== null}
          />
        ))}
        <path
          d={`${sectionPath(cut, frame)}Z`}
          fill="var(--bed)"
          fillOpacity={0.93}
          stroke="var(--ink)"
          strokeWidth={1}
          pointerEvents="none"
        />
        {side
          ? null
          : outcome.filling.basins.map((basin) => (
              <Hollow
                key={`${basin.x_mm} ${basin.depth_mm}`}
                cells={basin.cells_mm}
                frame={frame}
                fill="url(#late)"
                words={
                  basin.sealed
                    ? `${volumeText(basin.volume_ml, units, 1)} that nothing reaches`
                    : `${volumeText(basin.volume_ml, units, 1)} that fill when the level passes ${lengthText(basin.rim_depth_mm, units)}`
                }
              />
            ))}
        {side
          ? null
          : outcome.filling.traps.map((trap) => (
              <Hollow
                key={`${trap.x_mm} ${trap.depth_mm}`}
                cells={trap.cells_mm}
                frame={frame}
                fill="url(#air)"
                words={`${volumeText(trap.volume_ml, units, 2)} of air under the ${figureName(scene, trap.figure_id)}`}
              />
            ))}
      </g>
      <path d={`M${x0} ${top}H${x0 + width}`} stroke="var(--depth)" strokeWidth={1.2} />
      {offDisplay ? <OffDisplay frame={frame} /> : null}
    </g>
  );
}

/** A hollow as seen from the front, column by column. */
function Hollow({ cells, frame, fill, words }: { cells: number[][]; frame: Frame; fill: string; words: string }) {
  const { x0, top, scale } = frame;
  const step = Math.abs((cells[1]?.[0] ?? 1) - (cells[0]?.[0] ?? 0)) || 1;
  return (
    <g>
      <title>{words}</title>
      {cells.map(([x = 0, from = 0, to = 0]) => (
        <rect
          key={x}
          x={x0 + (x - 0.6 * step) * scale}
          width={1.2 * step * scale}
          y={top + from * scale}
          height={Math.max(1.5, (to - from) * scale)}
          fill={fill}
        />
      ))}
    </g>
  );
}

const SEEN_OFF = 2;

/** Depths whose back wall no display can show: a dotted line along the right wall, and words. */
function OffDisplay({ frame }: { frame: Frame }) {
  const { water } = useDocument().outcome;
  const from = depthsOver(water.depth_mm, water.off_display_de00, SEEN_OFF);
  const x = frame.x0 + frame.width_mm * frame.scale - 3;
  if (from.length === 0) return null;
  return (
    <g pointerEvents="none">
      {from.map(([start, end]) => (
        <path
          key={start}
          d={`M${x} ${frame.top + start * frame.scale}V${frame.top + end * frame.scale}`}
          stroke="#fbf7ec"
          strokeWidth={3}
          strokeDasharray="2 3"
        />
      ))}
      <text x={x + 2} y={frame.top - 7} textAnchor="end" fontSize={13} fontStyle="italic" fill="var(--soft)">
        dotted: more vivid than a display shows
      </text>
    </g>
  );
}

function FigureShape({
  one,
  frame,
  side,
  movable,
  pictured,
}: {
  one: View["figures"][number];
  frame: Frame;
  side: boolean;
  movable: boolean;
  pictured: boolean;
}) {
  const { scene, units } = useDocument();
  const choice = useChoice();
  const moved = useMoved(one.figure_id);
  const drag = useFigureDrag(one.figure_id, (place, dx, dy) => ({
    ...place,
    x_mm: round(place.x_mm + dx / frame.scale),
    height_mm: round(place.height_mm - dy / frame.scale),
  }));
  if (!moved) return null;
  const along = side ? moved.behind_mm : moved.x_mm;
  const chosen = choice.figureId === one.figure_id;
  return (
    <g
      transform={`translate(${along * frame.scale} ${-moved.height_mm * frame.scale})`}
      className={movable ? "grab" : "press"}
      onClick={() => {
        choice.chooseFigure(one.figure_id);
      }}
      {...(movable ? drag : {})}
    >
      <title>{figureName(scene, one.figure_id)}</title>
      {one.spread_mm > 0
        ? one.outlines.map((outline, index) => (
            <path
              key={`guess ${index}`}
              d={`${sectionPath(outline.points_mm, frame)}Z`}
              fill="none"
              stroke="var(--caution)"
              strokeOpacity={0.3}
              strokeWidth={Math.max(2, 2 * one.spread_mm * frame.scale)}
              strokeLinejoin="round"
            >
              <title>{`a guess: it may end ${lengthText(one.spread_mm, units, 1)} further in or out`}</title>
            </path>
          ))
        : null}
      {one.outlines.map((outline, index) => (
        <path
          key={index}
          d={`${sectionPath(outline.points_mm, frame)}Z`}
          fill={pictured ? "transparent" : one.reads_srgb}
          stroke={chosen ? "var(--caution)" : pictured ? "#16222a" : "var(--ink)"}
          strokeOpacity={chosen || !pictured ? 1 : 0.28}
          strokeWidth={chosen ? 1.6 : 0.7}
          strokeLinejoin="round"
        />
      ))}
    </g>
  );
}
