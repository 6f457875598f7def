import type { ProfilePart, ProfileSet } from "./profile-part";

const FOUND = import.meta.glob<{ profile: ProfilePart }>("./*.profile.tsx", { eager: true });
const GAPS: Record<ProfileSet, number> = { piece: 14, cure: 9, water: 14 };
/** Room for the widest set. */
export const PROFILES_WIDTH = 84 + 72 + 96 + 2 * GAPS.piece;

function profilesOf(set: ProfileSet): { Part: ProfilePart["Part"]; x: number; width: number; name: string }[] {
  let x = 0;
  return Object.entries(FOUND)
    .flatMap(([name, { profile }]) => {
      const place = profile.on[set];
      return place ? [{ name, Part: profile.Part, ...place }] : [];
    })
    .sort((a, b) => a.order - b.order)
    .map(({ name, Part, width }) => {
      const placed = { name, Part, x, width };
      x += width + GAPS[set];
      return placed;
    });
}

/** What is told against depth, on the same axis as the section. */
export function Profiles({ x, set }: { x: number; set: ProfileSet }) {
  return (
    <g>
      {profilesOf(set).map(({ name, Part, x: at, width }) => (
        <Part key={name} x={x + at} width={width} />
      ))}
    </g>
  );
}
