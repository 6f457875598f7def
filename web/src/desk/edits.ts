/** Edits of the document: each gives a new one and leaves the old alone. No physics here. */

import type { Figure, Pour, Scene } from "../api/types";

/** Least gap that a dragged line keeps from its neighbours, in mm. */
export const LEAST_GAP_MM = 2;

export function withPour(scene: Scene, number: number, change: Partial<Pour>): Scene {
  return { ...scene, pours: scene.pours.map((pour, index) => (index === number - 1 ? { ...pour, ...change } : pour)) };
}

export function withFigure(scene: Scene, id: string, change: Partial<Figure>): Scene {
  return {
    ...scene,
    figures: (scene.figures ?? []).map((figure) => (figure.id === id ? { ...figure, ...change } : figure)),
  };
}

/** Depths between which the line of a pour may lie: its neighbours, less a gap. */
export function lineRange(scene: Scene, number: number): [number, number] {
  const above = scene.pours[number]?.top_depth_mm ?? 0;
  const below = number > 1 ? (scene.pours[number - 2]?.top_depth_mm ?? 0) : scene.tank.fill_height_mm;
  return [above + LEAST_GAP_MM, below - LEAST_GAP_MM];
}

/** How near a dragged line comes to a figure's foot before it snaps to it, in mm. */
export const SNAP_MM = 1.2;

/** The depth of the nearest figure's foot, if a line is that near to one. */
export function snapped(depth_mm: number, feet_mm: readonly number[]): number {
  const near = feet_mm
    .filter((foot) => Math.abs(foot - depth_mm) <= SNAP_MM)
    .sort((a, b) => Math.abs(a - depth_mm) - Math.abs(b - depth_mm));
  return near[0] ?? depth_mm;
}

export function withLine(scene: Scene, number: number, depth_mm: number): Scene {
  if (number >= scene.pours.length) return scene;
  const [least, most] = lineRange(scene, number);
  const depth = Math.round(Math.min(most, Math.max(least, depth_mm)) * 2) / 2;
  return withPour(scene, number, { top_depth_mm: depth });
}
