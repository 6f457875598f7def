import type { Scene } from "../../api/types";

/** The piece as a slim gauge at the edge: pours that are in are filled, those to come are outlined. */
export function Gauge({ scene, poured, pouring }: { scene: Scene; poured: readonly string[]; pouring: string }) {
  const fill = scene.tank.fill_height_mm;
  const height = 320;
  const y = (depth: number) => (depth / fill) * height;
  return (
    <svg
      width={34}
      height={height + 4}
      role="img"
      aria-label={`${poured.length} of ${scene.pours.length} pours are in`}
    >
      {scene.pours.map((pour, at) => {
        const bottom = at === 0 ? fill : (scene.pours[at - 1]?.top_depth_mm ?? fill);
        const full = poured.includes(pour.id);
        return (
          <rect
            key={pour.id}
            x={2}
            width={30}
            y={2 + y(pour.top_depth_mm)}
            height={Math.max(1, y(bottom) - y(pour.top_depth_mm))}
            fill={full ? "var(--set)" : "none"}
            stroke={pour.id === pouring ? "var(--depth)" : "var(--ink)"}
            strokeWidth={pour.id === pouring ? 4 : 1.5}
          />
        );
      })}
    </svg>
  );
}
