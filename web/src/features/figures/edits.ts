/** Copies of a figure. No physics here. */

import type { Figure, Scene } from "../../api/types";

/** Places of a shoal about its first fish, in lengths of its spread. */
const SHOAL = [[1.1, 0.35, 0.12], [-1.05, 0.5, -0.1], [0.35, -0.75, 0.2], [-0.5, -0.6, -0.22], [1.9, -0.2, 0], [-1.9, -0.1, 0.15]] as const;

/** So many copies with free ids, spread like a shoal about the first and kept inside the tank. */
export function copied(scene: Scene, figure: Figure, count: number, spread_mm = 16): Figure[] {
  const taken = new Set((scene.figures ?? []).map((one) => one.id));
  const stem = figure.id.replace(/-\d+$/, "").slice(0, 30);
  const kind = figure.name.replace(/\s+\d+$/, "");
  const made: Figure[] = [];
  for (let index = 0, n = 1; index < count; index += 1) {
    while (taken.has(`${stem}-${n}`)) n += 1;
    taken.add(`${stem}-${n}`);
    const [dx, dy, dz] = SHOAL[index % SHOAL.length] ?? [1, 0, 0];
    made.push({
      ...figure,
      id: `${stem}-${n}`,
      name: `${kind} ${n}`,
      turn_deg: (figure.turn_deg ?? 0) + ((index * 7) % 13) - 6,
      place: {
        x_mm: within(figure.place.x_mm + dx * spread_mm, scene.tank.inner_width_mm),
        behind_mm: within(figure.place.behind_mm + dy * spread_mm, scene.tank.inner_behind_mm),
        height_mm: figure.holding === "staged" ? figure.place.height_mm : Math.max(0, figure.place.height_mm + dz * spread_mm),
      },
    });
  }
  return made;
}

const within = (mm: number, most: number) => Math.round(Math.min(most - 2, Math.max(2, mm)) * 2) / 2;
