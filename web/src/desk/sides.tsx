import type { Beginning } from "../api/types";
import { Choice } from "../ui/row";

export type Sides = Beginning["viewing_sides"];

const SIDES = [
  ["front,above", "front and above"],
  ["front,back,left,right,above", "all round"],
  ["front", "the front alone"],
  ["above", "above alone"],
] as const;

/** From where a piece is seen; other choices than the usual ones are named as they are. */
export function SidesField({ sides, take }: { sides: Sides; take: (sides: Sides) => void }) {
  const key = sides.join(",");
  const usual = SIDES.some(([one]) => one === key);
  return (
    <Choice
      label="seen from"
      value={usual ? key : ""}
      options={usual ? SIDES : [...SIDES, ["", sides.join(", ")]]}
      take={(chosen) => {
        if (chosen) take(chosen.split(",") as Sides);
      }}
    />
  );
}
