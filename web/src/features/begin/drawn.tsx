import type { Answers } from "./answers";

/** Small drawings of what an answer means: ink on the sheet, no picture of anything that is for sale. */
const W = 74;
const H = 44;
const TOP = 8;

const BEDS: Record<Answers["bed"], string> = {
  level: `M3 ${H - 8} H${W - 3}`,
  slope: `M3 18 C20 22 26 34 ${W - 3} ${H - 6}`,
  bowl: `M3 16 C16 42 58 42 ${W - 3} 16`,
  ledge: `M3 20 H26 L30 ${H - 7} H${W - 3}`,
  channel: `M3 18 H20 C30 18 28 ${H - 6} 37 ${H - 6} C46 ${H - 6} 44 18 54 18 H${W - 3}`,
  reef: `M3 ${H - 8} C10 ${H - 8} 12 22 18 22 C24 22 24 34 31 34 C38 34 38 16 46 16 C54 16 54 ${H - 8} ${W - 3} ${H - 8}`,
};

export function BedDrawn({ bed }: { bed: Answers["bed"] }) {
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={62} height={37} style={{ margin: "0 auto" }} aria-hidden="true">
      <path d={`M3 ${TOP} H${W - 3}`} stroke="var(--depth)" strokeWidth="1.5" />
      <path d={`${BEDS[bed]} V${H - 2} H3 Z`} fill="var(--bed)" stroke="var(--ink)" />
      <path d={`M3 3 V${H - 2} H${W - 3} V3`} fill="none" stroke="var(--hair)" strokeWidth="2" />
    </svg>
  );
}

export function ShapeDrawn({ kind }: { kind: "box" | "round" }) {
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={62} height={37} style={{ margin: "0 auto" }} aria-hidden="true">
      {kind === "box" ? (
        <path d="M8 14 H52 V38 H8 Z M8 14 L22 6 H66 L52 14 M66 6 V30 L52 38" fill="none" stroke="var(--ink)" />
      ) : (
        <path
          d="M15 12 A22 6 0 0 1 59 12 A22 6 0 0 1 15 12 V34 A22 6 0 0 0 59 34 V12"
          fill="none"
          stroke="var(--ink)"
        />
      )}
    </svg>
  );
}

const WATERS: Record<Answers["water"], [string, string]> = {
  clear: ["#eef3f1", "#dfe9e6"],
  blue: ["#bfe0e6", "#2f86a8"],
  green: ["#c3dfc4", "#3f8a62"],
  murky: ["#c9cfa4", "#5d6436"],
};

export function WaterDrawn({ water }: { water: Answers["water"] }) {
  const [top, bottom] = WATERS[water];
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={62} height={37} style={{ margin: "0 auto" }} aria-hidden="true">
      <defs>
        <linearGradient id={`water-${water}`} x1="0" y1="0" x2="0" y2="1">
          <stop offset="0" stopColor={top} />
          <stop offset="1" stopColor={bottom} />
        </linearGradient>
      </defs>
      <rect x="3" y="3" width={W - 6} height={H - 6} fill={`url(#water-${water})`} stroke="var(--hair)" />
    </svg>
  );
}
