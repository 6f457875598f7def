import type { PourOutcome } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Profile } from "../../sounding/profile";
import { useDepth } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

const INKS: Record<PourOutcome["joint"]["meets"], string> = {
  on_bed: "var(--set)",
  bonds: "var(--set)",
  too_early: "var(--caution)",
  too_late: "var(--watch)",
  too_close: "var(--watch)",
};

/** What is left to bond chemically at each joint, in the ink of whether it comes in time. */
function Bonds({ x, width }: { x: number; width: number }) {
  const { outcome } = useDocument();
  const { depth } = useDepth();
  return (
    <Profile x={x} width={width} title="bond" under="free, %">
      {outcome.pours.map(({ id, number, bottom_depth_mm, joint }) =>
        joint.bond ? (
          <rect
            key={id}
            x={0}
            y={depth(bottom_depth_mm) - 3}
            width={Math.max(1.5, joint.bond.bond_fraction * width)}
            height={6}
            fill={INKS[joint.meets]}
          >
            <title>{`under pour ${number}: ${joint.words}; ${Math.round(joint.bond.bond_fraction * 100)} % still free to bond`}</title>
          </rect>
        ) : null,
      )}
      <Ends low="0" high="100" width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { cure: { order: 4, width: 40 } }, Part: Bonds };
