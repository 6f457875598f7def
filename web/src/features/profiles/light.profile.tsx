import { useDocument } from "../../desk/document";
import { Curve, Profile } from "../../sounding/profile";
import { Ends, type ProfilePart } from "./profile-part";

/** What is left of red, green and blue light. */
function Light({ x, width }: { x: number; width: number }) {
  const { water } = useDocument().outcome;
  const frame = { depths: water.depth_mm, domain: [0, 1] as const, width };
  return (
    <Profile x={x} width={width} title="light" under="left, %">
      <Curve {...frame} values={water.red_fraction} ink="var(--red)" />
      <Curve {...frame} values={water.green_fraction} ink="var(--green)" />
      <Curve {...frame} values={water.blue_fraction} ink="var(--blue)" />
      <Ends low="0" high="100" width={width} />
    </Profile>
  );
}

export const profile: ProfilePart = {
  on: { piece: { order: 2, width: 72 }, water: { order: 1, width: 72 } },
  Part: Light,
};
