/** What hands do to a bed. Each touch gives new heights and leaves the old alone. */

export const HANDS = [
  "build up",
  "carve off",
  "rub smooth",
  "ramp",
  "step",
  "press a stone in",
  "scatter gravel",
  "cut with a wire",
] as const;
export type Hand = (typeof HANDS)[number];
export type Tool = Hand | "type depths";

export interface Stroke {
  hand: Hand;
  /** how wide it reaches and how much one stroke moves, both in mm */
  wide_mm: number;
  each_mm: number;
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

/** One touch. `from` is where the stroke began: a ramp and a wire run from there to here. */
export function touched(ground: Ground, stroke: Stroke, at: Spot, from: Spot): number[][] {
  const rows = ground.heights.length;
  const columns = ground.heights[0]?.length ?? 0;
  const reach = stroke.wide_mm / 2;
  const began = heightAt(ground, from);
  const here = heightAt(ground, at);
  const drawn = stroke.hand === "ramp" || stroke.hand === "cut with a wire";
  return ground.heights.map((row, j) => {
    const behind = (j / (rows - 1)) * ground.behind_mm;
    return row.map((height, i) => {
      const x = (i / (columns - 1)) * ground.width_mm;
      const away = drawn
        ? distanceToLine({ x_mm: x, behind_mm: behind }, from, at)
        : Math.hypot(x - at.x_mm, behind - at.behind_mm);
      if (away >= reach) return height;
      const to = target(stroke, ground, { height, i, j, began, here, x, behind, from, at, away });
      return Math.round(clamp(height + share(stroke, away) * (to - height), 0, ground.most_mm) * 100) / 100;
    });
  });
}

/** How much of the way a point goes: hands are soft at their rim, stones, gravel and wires are not. */
function share(stroke: Stroke, away_mm: number): number {
  if (stroke.hand === "build up" || stroke.hand === "carve off") return weight(away_mm, stroke.wide_mm);
  if (stroke.hand === "rub smooth" || stroke.hand === "ramp" || stroke.hand === "step")
    return 0.6 * weight(away_mm, stroke.wide_mm);
  return 1;
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
  away: number;
}

function target(stroke: Stroke, ground: Ground, place: Place): number {
  const { height } = place;
  switch (stroke.hand) {
    case "build up":
      return height + stroke.each_mm;
    case "carve off":
      return height - stroke.each_mm;
    case "rub smooth":
      return around(ground, place.i, place.j);
    case "step": {
      const step = Math.max(1, stroke.each_mm);
      return Math.round(height / step) * step;
    }
    case "press a stone in":
      // a round stone that stands out of the bed where it was pressed
      return Math.max(height, place.here + stroke.each_mm * Math.sqrt(1 - ((2 * place.away) / stroke.wide_mm) ** 2));
    case "scatter gravel":
      return height + stroke.each_mm * grain(place.i, place.j);
    case "cut with a wire":
      return Math.min(height, along(place));
    case "ramp":
      return along(place);
  }
}

/** Height of the straight line from where a stroke began to where it is. */
function along({ height, began, here, x, behind, from, at }: Place): number {
  const dx = at.x_mm - from.x_mm;
  const dy = at.behind_mm - from.behind_mm;
  const length = dx * dx + dy * dy;
  if (length < 1) return height;
  const part = clamp(((x - from.x_mm) * dx + (behind - from.behind_mm) * dy) / length, 0, 1);
  return began + (here - began) * part;
}

/** 0 to 1, the same for a point of the bed every time: one point in four carries a grain. */
function grain(i: number, j: number): number {
  const mixed = Math.sin(i * 127.1 + j * 311.7) * 43758.5453;
  const part = mixed - Math.floor(mixed);
  return part > 0.75 ? (part - 0.75) * 4 : 0;
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
