/** From four corners clicked in a photograph to the transform that lays a picture over it. */

type Corner = readonly [number, number];

/** Solves a small linear system by elimination with the largest pivot; null where it has no single answer. */
export function solved(rows: number[][], right: number[]): number[] | null {
  const size = right.length;
  const work = rows.map((row, at) => [...row, right[at] ?? 0]);
  for (let at = 0; at < size; at += 1) {
    let pivot = at;
    for (let below = at + 1; below < size; below += 1)
      if (Math.abs(work[below]?.[at] ?? 0) > Math.abs(work[pivot]?.[at] ?? 0)) pivot = below;
    const [first, other] = [work[at] ?? [], work[pivot] ?? []];
    if (Math.abs(other[at] ?? 0) < 1e-9) return null;
    [work[at], work[pivot]] = [other, first];
    for (let row = 0; row < size; row += 1) {
      if (row === at) continue;
      const share = (work[row]?.[at] ?? 0) / (other[at] ?? 1);
      work[row] = (work[row] ?? []).map((value, column) => value - share * (other[column] ?? 0));
    }
  }
  return work.map((row, at) => (row[size] ?? 0) / (row[at] ?? 1));
}

/**
 * The CSS transform that brings a rectangle to four corners: upper left, upper right, lower right, lower left.
 * null where three of them lie on a line.
 */
export function warpTo(width: number, height: number, corners: readonly Corner[]): string | null {
  const from: Corner[] = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  const rows: number[][] = [];
  const right: number[] = [];
  from.forEach(([x, y], at) => {
    const [u, v] = corners[at] ?? [0, 0];
    rows.push([x, y, 1, 0, 0, 0, -x * u, -y * u], [0, 0, 0, x, y, 1, -x * v, -y * v]);
    right.push(u, v);
  });
  const h = solved(rows, right);
  if (!h) return null;
  const [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, i = 0] = h;
  return `matrix3d(${[a, d, 0, g, b, e, 0, i, 0, 0, 1, 0, c, f, 0, 1].join(",")})`;
}
