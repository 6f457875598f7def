import { scaleLinear } from "d3-scale";

import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Label } from "../../sounding/label";
import { Profile } from "../../sounding/profile";
import { apart, useDepth } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";
import { sightRows } from "./sights";

/** How well figures are made out, kind by kind. */
function Sight({ x, width }: { x: number; width: number }) {
  const { outcome, scene } = useDocument();
  const { chooseFigure } = useChoice();
  const { depth, top, bottom } = useDepth();
  const rows = sightRows(outcome.sights, scene);
  const across = scaleLinear([0, 1], [0, width]);
  const places = apart(
    rows.map((row) => depth(row.depth_mm)),
    24,
    top + 16,
    bottom - 6,
  );
  return (
    <Profile x={x} width={width} title="sight" under="of figures">
      {rows.map((row, index) => {
        const y = places[index] ?? 0;
        return (
          <g
            key={row.name}
            className="press"
            onClick={() => {
              chooseFigure(row.figureIds[0] ?? null);
            }}
          >
            <Label x={4} y={y - 4} fontSize={13} fill={row.lost ? "var(--watch)" : "var(--ink)"}>
              {row.name}
            </Label>
            <rect
              x={0}
              y={y - 1}
              width={across(row.contrast_fraction)}
              height={4}
              fill={row.lost ? "var(--watch)" : "var(--ink)"}
            />
          </g>
        );
      })}
      <Ends low="0" high="100" width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = {
  on: { piece: { order: 3, width: 96 }, water: { order: 3, width: 96 } },
  Part: Sight,
};
