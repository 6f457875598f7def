import type { Scene, Units } from "../api/types";
import { volumeText, weighedText } from "../units/display";

/** A part of a mix as the person measures it: on a scale, or in marked cups where there is none. */
export function partText(scene: Scene, units: Units, grams: number, ml: number): string {
  return scene.brief.habits?.measures === "volume" ? volumeText(ml, units, 1) : weighedText(grams, units);
}

/** The same part the other way. */
export function otherText(scene: Scene, units: Units, grams: number, ml: number): string {
  return scene.brief.habits?.measures === "volume" ? weighedText(grams, units) : volumeText(ml, units);
}
