import { useDocument } from "../../desk/document";
import { Curve, Profile } from "../../sounding/profile";
import { span } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

/** Hours from its own pour to gel, by level. */
function Gel({ x, width }: { x: number; width: number }) {
  const { heat } = useDocument().outcome;
  const [, most] = span(heat.gel_h, [0, 6]);
  return (
    <Profile x={x} width={width} title="gel" under="after, h">
      <Curve depths={heat.depth_mm} domain={[0, most]} width={width} values={heat.gel_h} ink="var(--ink)" />
      <Ends low="0" high={String(Math.round(most))} width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { cure: { order: 3, width: 38 } }, Part: Gel };
