import { useDocument } from "../../desk/document";
import { SEEN_INKS } from "../../desk/seen";
import { Limit, Profile } from "../../sounding/profile";
import { useDepth } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

const SEEN_DE00 = 2;

/** Layer lines, from the side on which each shows most. */
function Seams({ x, width }: { x: number; width: number }) {
  const { outcome } = useDocument();
  const { depth } = useDepth();
  const shown = outcome.lines.flatMap((line) => {
    const side = [...line.sides].sort((a, b) => b.de00 - a.de00)[0];
    return side ? [{ ...line, side }] : [];
  });
  const most = Math.max(5, ...shown.map((one) => one.side.de00));
  return (
    <Profile x={x} width={width} title="lines" under="show, dE">
      <Limit at={SEEN_DE00} domain={[0, most]} width={width} word="seen" />
      {shown.map((one) => (
        <rect
          key={one.depth_mm}
          x={0}
          y={depth(one.depth_mm) - 3}
          width={(one.side.de00 / most) * width}
          height={6}
          fill={`var(--${SEEN_INKS[one.worst]})`}
        >
          <title>{`${one.side.de00.toFixed(1)} from the ${one.side.side}, ${one.side.words}`}</title>
        </rect>
      ))}
      <Ends low="0" high={most.toFixed(0)} width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { water: { order: 2, width: 84 } }, Part: Seams };
