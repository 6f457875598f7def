/** From the tank's millimetres to the page, for the section and the plan below it. */

export interface Frame {
  x0: number;
  top: number;
  bottom: number;
  /** page units in a millimetre */
  scale: number;
  width_mm: number;
  fill_mm: number;
}

export type Points = readonly (readonly number[])[];

/** Heights above the floor, drawn upward. */
export function sectionPath(points: Points, frame: Frame): string {
  return path(points, (across, height) => [frame.x0 + across * frame.scale, frame.bottom - height * frame.scale]);
}

/** Distances behind the glass, drawn away from the viewer: the glass is at the lower edge. */
export function planPath(points: Points, frame: Frame): string {
  return path(points, (across, behind) => [frame.x0 + across * frame.scale, frame.bottom - behind * frame.scale]);
}

function path(points: Points, place: (across: number, up: number) => [number, number]): string {
  return points
    .map((point, index) => {
      const [x, y] = place(point[0] ?? 0, point[1] ?? 0);
      return `${index ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`;
    })
    .join("");
}

const SHOAL = [228, 210, 162] as const;
const MIDDLE = [186, 214, 204] as const;
const DEEP = [95, 148, 170] as const;

/** Tint of the chart from shoal buff to deep blue, by share of the full depth. */
export function shoalTint(share: number): string {
  const at = Math.min(1, Math.max(0, share));
  const [from, to, part] = at < 0.35 ? [SHOAL, MIDDLE, at / 0.35] : [MIDDLE, DEEP, (at - 0.35) / 0.65];
  const mixed = from.map((low, index) => Math.round(low + ((to[index] ?? 0) - low) * part));
  return `rgb(${mixed.join(" ")})`;
}

/** Ranges of depth over which values are above a limit. */
export function depthsOver(depth_mm: readonly number[], values: readonly number[], limit: number): [number, number][] {
  const ranges: [number, number][] = [];
  depth_mm.forEach((depth, index) => {
    if ((values[index] ?? 0) <= limit) return;
    const last = ranges.at(-1);
    if (last && (values[index - 1] ?? 0) > limit) last[1] = depth;
    else ranges.push([depth, depth]);
  });
  return ranges;
}
