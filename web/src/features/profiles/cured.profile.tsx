import { useCursor } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { resinOf } from "../../desk/names";
import { Curve, Profile } from "../../sounding/profile";
import { between, useDepth } from "../../sounding/scales";
import { Ends, type ProfilePart } from "./profile-part";

/** How far each level is cured at the moment that is looked at, with the tack band of each pour's own resin. */
function Cured({ x, width }: { x: number; width: number }) {
  return (
    <Profile x={x} width={width} title="cured" under="%, now">
      <TackBands width={width} />
      <Now width={width} />
      <Ends low="0" high="100" width={width} />
    </Profile>
  );
}

function TackBands({ width }: { width: number }) {
  const { outcome, scene } = useDocument();
  const { depth } = useDepth();
  return outcome.pours.map((pour) => {
    const resin = resinOf(scene, pour.resin_id);
    if (!resin) return null;
    const [top, bottom] = [depth(pour.top_depth_mm), depth(pour.bottom_depth_mm)];
    return (
      <rect
        key={pour.id}
        x={resin.gel_degree * width}
        y={top}
        width={(resin.tack_free_degree - resin.gel_degree) * width}
        height={Math.max(0, bottom - top)}
        fill="var(--set-pale)"
        opacity={0.6}
      >
        <title>{`tack of pour ${pour.number}: ${Math.round(resin.gel_degree * 100)} to ${Math.round(resin.tack_free_degree * 100)} % cured`}</title>
      </rect>
    );
  });
}

function Now({ width }: { width: number }) {
  const { heat, history } = useDocument().outcome;
  const { at_h } = useCursor();
  const now = heat.depth_mm.map((_, level) =>
    between(
      history.at_h,
      history.least_degree.map((row) => row[level] ?? null),
      at_h,
    ),
  );
  return <Curve depths={heat.depth_mm} domain={[0, 1]} width={width} values={now} ink="var(--set)" weight={2.2} />;
}

export const profile: ProfilePart = { on: { cure: { order: 2, width: 48 } }, Part: Cured };
