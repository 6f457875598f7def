import type { Tank } from "../../api/types";

export type SizeBy = "inside" | "outside" | "place";

/** Play on either side of the piece in the place where it will stand, in mm. */
export const PLAY_MM = 1;

const around = (by: SizeBy, tank: Tank) => {
  const sheet = 2 * (tank.wall.thickness_mm + (tank.cutting?.film_mm ?? 0));
  if (by === "inside") return 0;
  return by === "outside" ? sheet : sheet + 2 * PLAY_MM;
};

/** The inner size as the person enters it: inside, outside, or the place the piece stands in. */
export const shownSize = (inner_mm: number, by: SizeBy, tank: Tank): number =>
  Math.round((inner_mm + around(by, tank)) * 100) / 100;

export const innerOf = (typed_mm: number, by: SizeBy, tank: Tank): number =>
  Math.round((typed_mm - around(by, tank)) * 100) / 100;
