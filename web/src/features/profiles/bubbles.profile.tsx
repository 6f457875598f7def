import { useDocument } from "../../desk/document";
import { Curve, Limit, Profile } from "../../sounding/profile";
import { span } from "../../sounding/scales";
import { lengthText } from "../../units/display";
import { Ends, type ProfilePart } from "./profile-part";

const SEEN_MM = 0.1;

/** The smallest bubble that still leaves before gel. */
function Bubbles({ x, width }: { x: number; width: number }) {
  const { outcome, units } = useDocument();
  const { bubbles } = outcome;
  const [, most] = span(bubbles.escape_diameter_mm, [0, 0.12]);
  return (
    <Profile x={x} width={width} title="bubbles" under={`out, ${units.length === "in" ? "in" : "mm"}`}>
      <Limit at={SEEN_MM} domain={[0, most]} width={width} word="seen" />
      <Curve
        depths={bubbles.depth_mm}
        domain={[0, most]}
        width={width}
        values={bubbles.escape_diameter_mm}
        ink="var(--depth)"
        weight={2}
      />
      <Ends
        low="0"
        high={units.length === "in" ? lengthText(most, units).replace(" in", "") : most.toFixed(2)}
        width={width}
      />
    </Profile>
  );
}

export const profile: ProfilePart = { on: { cure: { order: 5, width: 46 } }, Part: Bubbles };
