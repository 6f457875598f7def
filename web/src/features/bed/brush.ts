/** Brushes on the heights of a bed. Each gives new heights and leaves the old alone. */

export const BRUSHES = ["raise", "lower", "smooth", "slope", "terrace"] as const;
export type Brush = (typeof BRUSHES)[number];
export type Tool = Brush | "type depths";

export interface Stroke {
  brush: Brush;
  /** width of the brush and how much one touch moves, both in mm */
  size_mm: number;
  strength_mm: number;
}

export interface Ground {
  heights: readonly (readonly number[])[];
  width_mm: number;
  behind_mm: number;
  /** no higher than the walls */
  most_mm: number;
}

export interface Spot {
  x_mm: number;
  behind_mm: number;
}

/** 1 in the middle of the brush, 0 at its rim, smooth between. */
export function weight(away_mm: number, size_mm: number): number {
  const share = (2 * away_mm) / size_mm;
  return share >= 1 ? 0 : (1 - share * share) ** 2;
}

/** Height of the bed at a place, bilinear between its points. */
export function heightAt(ground: Ground, at: Spot): number {
  const rows = ground.heights.length;
  const columns = ground.heights[0]?.length ?? 0;
  const u = clamp(at.x_mm / ground.width_mm, 0, 1) * (columns - 1);
  const v = clamp(at.behind_mm / ground.behind_mm, 0, 1) * (rows - 1);
  const i = Math.min(Math.floor(u), columns - 2);
  const j = Math.min(Math.floor(v), rows - 2);
  const [s, t] = [u - i, v - j];
  const corner = (row: number, column: number) => ground.heights[row]?.[column] ?? 0;
  return (
    corner(j, i) * (1 - s) * (1 - t) +
    corner(j, i + 1) * s * (1 - t) +
    corner(j + 1, i) * (1 - s) * t +
    corner(j + 1, i + 1) * s * t
  );
}

/** One touch of a brush. `from` is where the stroke began: a slope runs from there to here. */
export function touched(ground: Ground, stroke: Stroke, at: Spot, from: Spot): number[][] {
  const rows = ground.heights.length;
  const columns = ground.heights[0]?.length ?? 0;
  const reach = stroke.size_mm / 2;
  const began = heightAt(ground, from);
  const here = heightAt(ground, at);
  return ground.heights.map((row, j) => {
    const behind = (j / (rows - 1)) * ground.behind_mm;
    return row.map((height, i) => {
      const x = (i / (columns - 1)) * ground.width_mm;
      const away =
        stroke.brush === "slope"
          ? distanceToLine({ x_mm: x, behind_mm: behind }, from, at)
          : Math.hypot(x - at.x_mm, behind - at.behind_mm);
      if (away >= reach) return height;
      const share = weight(away, stroke.size_mm);
      const to = target(stroke, ground, { height, i, j, began, here, x, behind, from, at });
      const moved =
        stroke.brush === "raise" || stroke.brush === "lower"
          ? height + share * (to - height)
          : height + share * 0.6 * (to - height);
      return Math.round(clamp(moved, 0, ground.most_mm) * 100) / 100;
    });
  });
}

interface Place {
  height: number;
  i: number;
  j: number;
  began: number;
  here: number;
  x: number;
  behind: number;
  from: Spot;
  at: Spot;
}

function target(stroke: Stroke, ground: Ground, place: Place): number {
  if (stroke.brush === "raise") return place.height + stroke.strength_mm;
  if (stroke.brush === "lower") return place.height - stroke.strength_mm;
  if (stroke.brush === "smooth") return around(ground, place.i, place.j);
  if (stroke.brush === "terrace") {
    const step = Math.max(1, stroke.strength_mm);
    return Math.round(place.height / step) * step;
  }
  const dx = place.at.x_mm - place.from.x_mm;
  const dy = place.at.behind_mm - place.from.behind_mm;
  const length = dx * dx + dy * dy;
  if (length < 1) return place.height;
  const along = clamp(((place.x - place.from.x_mm) * dx + (place.behind - place.from.behind_mm) * dy) / length, 0, 1);
  return place.began + (place.here - place.began) * along;
}

function around(ground: Ground, i: number, j: number): number {
  let sum = 0;
  let count = 0;
  for (let row = j - 1; row <= j + 1; row += 1) {
    for (let column = i - 1; column <= i + 1; column += 1) {
      const height = ground.heights[row]?.[column];
      if (height === undefined) continue;
      sum += height;
      count += 1;
    }
  }
  return sum / count;
}

function distanceToLine(point: Spot, from: Spot, to: Spot): number {
  const dx = to.x_mm - from.x_mm;
  const dy = to.behind_mm - from.behind_mm;
  const length = dx * dx + dy * dy;
  const along =
    length === 0 ? 0 : clamp(((point.x_mm - from.x_mm) * dx + (point.behind_mm - from.behind_mm) * dy) / length, 0, 1);
  return Math.hypot(point.x_mm - from.x_mm - along * dx, point.behind_mm - from.behind_mm - along * dy);
}

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));
