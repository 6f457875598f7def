import type { PourOutcome } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Limit, Profile } from "../../sounding/profile";
import { useDepth } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

type Seam = NonNullable<PourOutcome["joint"]["seam"]>;
const SEEN_DE00 = 2;
const INKS: Record<Seam["seen"], string> = {
  invisible: "var(--soft)",
  searched_for: "var(--soft)",
  seen: "var(--watch)",
  band: "var(--caution)",
};

/** Colour steps at the layer lines, by how they are seen. */
function Seams({ x, width }: { x: number; width: number }) {
  const { outcome } = useDocument();
  const { depth } = useDepth();
  const steps = outcome.pours.flatMap((pour) => (pour.joint.seam ? [pour.joint.seam] : []));
  const most = Math.max(5, ...steps.map((one) => one.seam_de00));
  return (
    <Profile x={x} width={width} title="lines" under="step, dE">
      <Limit at={SEEN_DE00} domain={[0, most]} width={width} word="seen" />
      {steps.map((one) => (
        <rect
          key={one.depth_mm}
          x={0}
          y={depth(one.depth_mm) - 3}
          width={(one.seam_de00 / most) * width}
          height={6}
          fill={INKS[one.seen]}
        >
          <title>{`${one.seam_de00.toFixed(1)}, ${one.words}`}</title>
        </rect>
      ))}
      <Ends low="0" high={most.toFixed(0)} width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { water: { order: 2, width: 84 } }, Part: Seams };
