/** The two axes that rule everything: depth down the page and time along the bottom. */

import { scaleLinear, type ScaleLinear } from "d3-scale";
import { createContext, useContext } from "react";

export type Scale = ScaleLinear<number, number>;

export interface DepthFrame {
  /** depth in mm to page */
  depth: Scale;
  top: number;
  bottom: number;
}

export const DepthContext = createContext<DepthFrame>({
  depth: scaleLinear([0, 1], [0, 1]),
  top: 0,
  bottom: 1,
});

export const useDepth = () => useContext(DepthContext);

export function span(
  values: readonly (number | null | undefined)[],
  least: readonly [number, number],
): [number, number] {
  let [low, high] = least;
  for (const value of values) {
    if (value === null || value === undefined) continue;
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return [low, high];
}

/** The tank, section above plan, at one scale for both, as large as the room allows. */
export function tankScale(
  room: { width: number; height: number },
  tank: { width_mm: number; behind_mm: number; fill_mm: number },
): number {
  return Math.max(0.2, Math.min(room.width / tank.width_mm, room.height / (tank.fill_mm + tank.behind_mm)));
}

/** Index of the entry nearest to a value in a rising list; -1 for an empty one. */
export function nearest(values: readonly number[], value: number): number {
  let best = -1;
  let gap = Infinity;
  values.forEach((one, index) => {
    if (Math.abs(one - value) < gap) {
      gap = Math.abs(one - value);
      best = index;
    }
  });
  return best;
}

/** Value between the two entries around a place on a rising axis; null where either is missing. */
export function between(axis: readonly number[], values: readonly (number | null)[], at: number): number | null {
  const last = axis.length - 1;
  if (last < 0) return null;
  const after = axis.findIndex((one) => one >= at);
  if (after === -1) return values[last] ?? null;
  if (after === 0) return values[0] ?? null;
  const [x0, x1] = [axis[after - 1], axis[after]];
  const [y0, y1] = [values[after - 1], values[after]];
  if (x0 === undefined || x1 === undefined || y1 === null || y1 === undefined) return null;
  if (y0 === null || y0 === undefined) return y1;
  return y0 + ((y1 - y0) * (at - x0)) / (x1 - x0 || 1);
}

/** Places down the page at least `gap` apart, each as near its own as can be, in rising order. */
export function apart(wanted: readonly number[], gap: number, top: number, bottom: number): number[] {
  const order = wanted.map((at, index) => ({ at, index })).sort((a, b) => a.at - b.at);
  let last = top - gap;
  for (const one of order) {
    one.at = Math.max(one.at, last + gap);
    last = one.at;
  }
  let next = bottom + gap;
  for (const one of [...order].reverse()) {
    one.at = Math.min(one.at, next - gap);
    next = one.at;
  }
  const placed = new Array<number>(wanted.length).fill(0);
  for (const one of order) placed[one.index] = one.at;
  return placed;
}
