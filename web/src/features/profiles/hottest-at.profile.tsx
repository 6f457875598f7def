import { useDocument } from "../../desk/document";
import { Curve, Profile } from "../../sounding/profile";
import { span } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

/** When each level is hottest, in hours from the first pour. */
function HottestAt({ x, width }: { x: number; width: number }) {
  const { heat } = useDocument().outcome;
  const [, most] = span(heat.peak_at_h, [0, 24]);
  return (
    <Profile x={x} width={width} title="hottest" under="at, h">
      <Curve depths={heat.depth_mm} domain={[0, most]} width={width} values={heat.peak_at_h} ink="var(--ink)" />
      <Ends low="0" high={String(Math.round(most))} width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { piece: { order: 9, width: 40 } }, Part: HottestAt };
