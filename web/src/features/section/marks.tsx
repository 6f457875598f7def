import type { DragEvent, MouseEvent } from "react";

import { faultWord, useSpot, useStory } from "../../desk/story";
import { Label } from "../../sounding/label";
import type { Frame } from "../../sounding/page";

/** Entries of the log where they are; a press marks a spot, a photograph that is dropped is kept there. */
export function Marks({ frame }: { frame: Frame }) {
  const { entries, bring } = useStory();
  const { spot, press } = useSpot();
  const { x0, top, scale } = frame;
  const at = (event: MouseEvent<SVGElement> | DragEvent<SVGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return { x_mm: (event.clientX - box.left - x0) / scale, depth_mm: (event.clientY - box.top - top) / scale };
  };
  return (
    <g>
      <rect
        x={x0}
        y={top}
        width={frame.width_mm * scale}
        height={frame.fill_mm * scale}
        fill="transparent"
        style={{ cursor: "crosshair" }}
        role="img"
        aria-label="Press where it is"
        onClick={(event) => {
          press(at(event));
        }}
        onDragOver={(event) => {
          if (event.dataTransfer.types.includes("Files")) event.preventDefault();
        }}
        onDrop={(event) => {
          event.preventDefault();
          const file = event.dataTransfer.files[0];
          if (file) bring.mutate({ file, place: at(event) });
        }}
      />
      {entries.data?.map((entry) => {
        if (!entry.place) return null;
        const [x, y] = [x0 + entry.place.x_mm * scale, top + entry.place.depth_mm * scale];
        const word = entry.fault ? faultWord(entry.fault.kind) : entry.kind;
        const radius = Math.max(4, ((entry.fault?.size_mm ?? 0) * scale) / 2);
        return (
          <g key={entry.id} pointerEvents="none" role="img" aria-label={`${word}, ${entry.text}`}>
            <circle
              cx={x}
              cy={y}
              r={radius}
              fill="none"
              stroke={entry.fault ? "var(--caution)" : "var(--depth)"}
              strokeWidth={1.8}
            />
            <Label
              x={x}
              y={y - radius - 4}
              textAnchor="middle"
              fontSize={13}
              fill={entry.fault ? "var(--caution)" : "var(--depth)"}
            >
              {word}
            </Label>
          </g>
        );
      })}
      {spot ? (
        <path
          pointerEvents="none"
          d={`M${x0 + spot.x_mm * scale - 7} ${top + spot.depth_mm * scale}h14m-7 -7v14`}
          stroke="var(--caution)"
          strokeWidth={2}
        />
      ) : null}
    </g>
  );
}
