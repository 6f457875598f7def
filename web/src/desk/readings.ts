import { between, nearest } from "../sounding/scales";
import { lengthText, temperatureFigure, temperatureUnit } from "../units/display";
import { useCursor } from "./cursor";
import { useDocument } from "./document";
import { figureName } from "./names";

export interface Reading {
  word: string;
  value: string;
  chip?: string;
  /** id of how it is known */
  known?: string;
}

/** What the gondola reads at its depth, on each profile, as words. */
export function useReadings(): Reading[] {
  const { outcome, units, scene } = useDocument();
  const { depth_mm, at_h } = useCursor();
  const { heat, water, history, pours, sights, bubbles } = outcome;
  const level = nearest(heat.depth_mm, depth_mm);
  const at = nearest(water.depth_mm, depth_mm);
  const pour = pours.find((one) => depth_mm >= one.top_depth_mm && depth_mm <= one.bottom_depth_mm) ?? pours.at(-1);
  const figure = (value: number | undefined) => (value === undefined ? "-" : temperatureFigure(value, units));
  const cure = between(
    history.at_h,
    history.least_degree.map((row) => row[level] ?? null),
    at_h,
  );
  const near = sights.filter((one) => depth_mm >= one.top_depth_mm && depth_mm <= one.bottom_depth_mm);
  const percent = (value: number | undefined) => (value === undefined ? "-" : `${Math.round(value * 100)}`);
  const band =
    heat.high_c[level] !== undefined && heat.low_c[level] !== undefined
      ? `, ${figure(heat.low_c[level])} to ${figure(heat.high_c[level])}`
      : "";
  const bubble = bubbles.escape_diameter_mm[nearest(bubbles.depth_mm, depth_mm)];
  return [
    { word: "pour", value: pour ? `${pour.number}, ${pour.joint.words}` : "-" },
    {
      word: "peak",
      known: "peak",
      value:
        heat.peak_c[level] === undefined ? "bed" : `${figure(heat.peak_c[level])} ${temperatureUnit(units)}${band}`,
    },
    { word: "cured now", value: cure === null ? "not poured yet" : `${percent(cure)} %` },
    {
      word: "smallest out",
      known: "smallest_out",
      value:
        bubble === null || bubble === undefined
          ? "none leave"
          : bubble < 0.005
            ? "all bubbles leave"
            : `bubbles over ${lengthText(bubble, units, 2)}`,
    },
    {
      word: "light left",
      known: "light_left",
      value: `${percent(water.light_fraction[at])} %: R ${percent(water.red_fraction[at])}, G ${percent(water.green_fraction[at])}, B ${percent(water.blue_fraction[at])}`,
    },
    {
      word: "back wall",
      value: `${water.backdrop_srgb[at] ?? ""}${(water.off_display_de00[at] ?? 0) > 2 ? ", display cannot show it" : ""}`,
      chip: water.backdrop_srgb[at] ?? "",
    },
    {
      word: "sighted to",
      known: "sighted",
      value:
        (water.sighting_mm[at] ?? 9999) > 2000
          ? "all through"
          : `${lengthText(water.sighting_mm[at] ?? 0, units)} behind`,
    },
    {
      word: "figures here",
      value: near.length
        ? near
            .slice(0, 3)
            .map((one) => `${figureName(scene, one.figure_id)} ${percent(one.contrast_fraction)} %`)
            .join(", ")
        : "none",
    },
  ];
}
