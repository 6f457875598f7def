/** Names, joined to the ids that an outcome carries. */
import type { Resin, Scene } from "../api/types";

export const figureName = (scene: Scene, id: string | null): string =>
  scene.figures?.find((one) => one.id === id)?.name ?? (id === null ? "bed" : id);

export const resinOf = (scene: Scene, id: string | undefined): Resin | undefined =>
  scene.resins.find((one) => one.id === id);

/** "1:1 by volume", as the label says it. */
export function ratioWords(resin: Resin | undefined): string {
  return resin ? `${resin.ratio.part_a}:${resin.ratio.part_b} by ${resin.ratio.by}` : "";
}
