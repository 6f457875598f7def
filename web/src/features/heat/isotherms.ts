/** Isotherms of the heat picture, from the core's cells to the tank's millimetres. Drawing only. */

import { contours } from "d3-contour";

import type { HeatPlane } from "../../api/types";

export interface Isotherm {
  at_c: number;
  /** rings of (from the left, depth) in mm */
  rings: [number, number][][];
}

/** Place on an axis of uneven middles: `at` counts cells, 0.5 in the middle of the first. */
export function along(axis: readonly number[], at: number): number {
  const place = Math.min(axis.length - 1, Math.max(0, at - 0.5));
  const low = Math.floor(place);
  const high = Math.min(axis.length - 1, low + 1);
  const [from, to] = [axis[low] ?? 0, axis[high] ?? 0];
  return from + (to - from) * (place - low);
}

/** Steps of 2, 5, 10 or 20 K, so that at most eight lines are drawn. */
export function steps(low: number, high: number): number[] {
  const step = [1, 2, 5, 10, 20, 50].find((one) => (high - low) / one <= 8) ?? 50;
  const found = [];
  for (let at = Math.ceil(low / step) * step; at <= high; at += step) found.push(at);
  return found;
}

export function isotherms(plane: HeatPlane): Isotherm[] {
  const known = plane.temperature_c.flat().filter((value): value is number => value !== null);
  if (known.length === 0) return [];
  const low = Math.min(...known);
  const high = Math.max(...known);
  const width = plane.x_mm.length;
  const values = plane.temperature_c.flat().map((value) => value ?? low - 1e3);
  return contours()
    .size([width, plane.depth_mm.length])
    .thresholds(steps(low + 0.3, high))(values)
    .map((one) => ({
      at_c: one.value,
      rings: one.coordinates.flatMap((polygon) =>
        polygon.map((ring) =>
          ring.map((point): [number, number] => [
            along(plane.x_mm, point[0] ?? 0),
            along(plane.depth_mm, point[1] ?? 0),
          ]),
        ),
      ),
    }));
}

/** Warmth of the picture: clear at the room, magenta at the hottest. */
export function warmth(value: number, low: number, high: number): number {
  return Math.min(0.75, Math.max(0, (value - low) / Math.max(4, high - low)) * 0.75);
}
