import type { Figure } from "../../api/types";
import { LengthField, NumberField } from "../../desk/fields";

const WORDS: Record<string, string> = {
  length_mm: "long",
  height_mm: "high",
  thick_mm: "thick",
  bend_deg: "bend",
  wave_mm: "swing",
  beam_mm: "beam",
  depth_mm: "hull depth",
  sheer_mm: "sheer",
  wall_mm: "wall",
  width_mm: "wide",
  rail_mm: "rails",
  rungs_count: "rungs",
  outer_mm: "across",
  spread_mm: "spread",
  blade_mm: "blade",
  blades_count: "blades",
  scale_ratio: "scale",
  radius_mm: "radius",
};

type Solid = Figure["solids"][number];

/** The few measures that a figure's first solid is made from. */
export function Measures({ figure, set }: { figure: Figure; set: (change: Partial<Figure>, note: string) => void }) {
  const solid = figure.solids[0];
  if (!solid || figure.solids.length > 1) return null;
  const change = (key: string, value: number) => {
    set({ solids: [{ ...solid, [key]: value } as Solid] }, "measures of");
  };
  return (
    <>
      {Object.entries(solid).map(([key, value]) => {
        const word = WORDS[key];
        if (word === undefined || typeof value !== "number") return null;
        const take = (typed: number) => {
          change(key, key.endsWith("_count") ? Math.round(typed) : typed);
        };
        if (key.endsWith("_mm")) return <LengthField key={key} label={word} value={value} take={take} />;
        return <NumberField key={key} label={word} unit={key.endsWith("_deg") ? "°" : ""} value={value} take={take} />;
      })}
      {solid.kind === "ellipsoid" ? (
        <LengthField
          label="across"
          value={2 * (solid.radii_mm[0] ?? 1)}
          take={(mm) => {
            set(
              { solids: [{ ...solid, radii_mm: [mm / 2, mm / 2, mm / 2], centre_mm: [0, 0, mm / 2] }] },
              "measures of",
            );
          }}
        />
      ) : null}
      {solid.kind === "box"
        ? ["long", "wide", "high"].map((word, axis) => (
            <LengthField
              key={word}
              label={word}
              value={solid.size_mm[axis] ?? 1}
              take={(mm) => {
                const size_mm = solid.size_mm.map((one, at) => (at === axis ? mm : one));
                set({ solids: [{ ...solid, size_mm, centre_mm: [0, 0, (size_mm[2] ?? 1) / 2] }] }, "measures of");
              }}
            />
          ))
        : null}
    </>
  );
}
