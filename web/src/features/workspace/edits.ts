/** Edits of the document: each gives a new one and leaves the old alone. No physics here. */

import jsonpatch, { type Operation } from "fast-json-patch";

import type { Figure, Pour, Remedy, Scene } from "../../api/types";

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
  const near = feet_mm.filter((foot) => Math.abs(foot - depth_mm) <= SNAP_MM).sort((a, b) => Math.abs(a - depth_mm) - Math.abs(b - depth_mm));
  return near[0] ?? depth_mm;
}

export function withLine(scene: Scene, number: number, depth_mm: number): Scene {
  if (number >= scene.pours.length) return scene;
  const [least, most] = lineRange(scene, number);
  const depth = Math.round(Math.min(most, Math.max(least, depth_mm)) * 2) / 2;
  return withPour(scene, number, { top_depth_mm: depth });
}

function spareId(scene: Scene): string {
  const taken = new Set(scene.pours.map((pour) => pour.id));
  let n = 1;
  while (taken.has(`pour-${n}`)) n += 1;
  return `pour-${n}`;
}

/** A pour in two halves of depth; the upper one keeps its place and waits as long as the lower. */
export function splitPour(scene: Scene, number: number): Scene {
  const pour = scene.pours[number - 1];
  if (!pour) return scene;
  const below = scene.pours[number - 2]?.top_depth_mm ?? scene.tank.fill_height_mm;
  const middle = Math.round(pour.top_depth_mm + below) / 2;
  const lower = { ...pour, id: spareId(scene), top_depth_mm: middle };
  const upper = { ...pour, wait_h: pour.wait_h || 30 };
  return { ...scene, pours: [...scene.pours.slice(0, number - 1), lower, upper, ...scene.pours.slice(number)] };
}

/** Take a pour out: what it filled falls to the pour above it, or to the one below at the top. */
export function withoutPour(scene: Scene, number: number): Scene {
  if (scene.pours.length < 2) return scene;
  const pours = scene.pours.filter((_, index) => index !== number - 1);
  const last = pours.length - 1;
  return { ...scene, pours: pours.map((pour, index) => (index === last ? { ...pour, top_depth_mm: 0 } : pour)) };
}

export function withRemedy(scene: Scene, remedy: Remedy): Scene {
  return jsonpatch.applyPatch(structuredClone(scene), remedy.edits as Operation[]).newDocument;
}
