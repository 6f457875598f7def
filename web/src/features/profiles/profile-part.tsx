import type { ComponentType } from "react";

import { Label } from "../../sounding/label";
import { useDepth } from "../../sounding/scales";

/** A profile: where it stands, how wide it is, and what draws it. Each is a file of its own, found by its name. */
export interface ProfilePart {
  /** the sets of profiles that it stands in, and its place there */
  on: Partial<Record<ProfileSet, { order: number; width: number }>>;
  Part: ComponentType<{ x: number; width: number }>;
}

/** Which profiles stand beside the section: of the piece at rest, of its cure, of its water. */
export type ProfileSet = "piece" | "cure" | "water";

/** Figures at both ends of a profile's scale. */
export function Ends({ low, high, width }: { low: string; high: string; width: number }) {
  const { bottom } = useDepth();
  return (
    <g fill="var(--soft)">
      <Label x={0} y={bottom + 14} fontSize={13}>
        {low}
      </Label>
      <Label x={width} y={bottom + 14} fontSize={13} textAnchor="end">
        {high}
      </Label>
    </g>
  );
}
