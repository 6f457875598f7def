import type { Outcome, Scene, SceneRow } from "../api/types";
import type { Known } from "../api/types";
import { STAGES, stageWord } from "../stages";

/** Somewhere to go, or a word to read. */
export interface Found {
  kind: "stage" | "setting" | "figure" | "flag" | "scene" | "word";
  word: string;
  more: string;
  /** address to go to; none for a word that is only read */
  to: string | null;
  figureId?: string;
  pourNumber?: number;
}

/** What each part of an inspector holds, so that it is found by what one looks for. */
const SETTINGS: readonly (readonly [stage: string, part: string, holds: string])[] = [
  ["tank", "size", "shape, across, front to back, fill line, walls, lean, equal pieces"],
  ["tank", "dam", "sheet, thickness, container, seal, release by wax or tape, base"],
  ["tank", "under load", "bulge, ribs, level, thinnest layer, climb"],
  ["tank", "brief", "scale, sides, first pour, free hours, holidays, quiet hours, deadline, price, budget, habits"],
  ["tank", "room", "temperature by day and night"],
  ["bed", "hands", "build up, carve off, rub smooth, ramp, step, stone, gravel, wire, measured depths"],
  ["bed", "forms", "slope, bowl, ledge, channel, cave, reef, height map, mesh"],
  ["bed", "made of", "material, seal coat, colour of the bed"],
  ["bed", "facts", "water above, gas, pores, area to seal"],
  ["figures", "place", "from the left, behind the glass, depth, turned, shoal, lock"],
  ["figures", "holding", "on the bed, staged, stem, wire, line, glue, pin, trapped air, vents"],
  ["figures", "made of", "material, weight, hollow, colour, lamp, liner"],
  ["figures", "add", "fish, eel, hull, wagon, plank, post, ladder, plant, mesh"],
  ["figures", "schools", "staged or held, side by side"],
  ["water", "doses", "drops of ink, the same in every pour, shelf"],
  ["water", "measured", "stocks, whole drops, plain part A, test cup"],
  ["water", "wish", "scale-true water, colours by eye, bottles owned, photograph"],
  ["water", "light", "lamp, side faces, backdrop, distance, years on display, keep the picture"],
  ["water", "lines", "soft joins, colour steps"],
  ["water", "paint", "paint of a figure, which paint"],
  ["water", "own ink", "measured spectrum"],
  ["pours", "plan", "resin, line, mix, wait, split, take out"],
  ["pours", "facts", "tack, hard, full cure, stress, bond"],
  ["pours", "bubbles", "stirring, rest, vacuum, pressure pot, what would help most"],
  ["pours", "how sure", "chances, draws, in how many of 100"],
  ["pours", "cup", "heat in the cup, working time, at the scale, too much poured"],
  ["pours", "room", "fan, warm box"],
  ["pours", "lines", "colour, index, dust, rim, from each side"],
  ["pours", "order", "steps of the work, what before what, own steps"],
  ["pours", "plans", "stager, fewest pours that stop nothing"],
  ["pours", "resin", "a resin from its data sheet"],
  ["pours", "fine check", "march on fine cells"],
  ["pours", "grains", "glitter, mica, sand"],
  ["bench", "run", "begin the pour day, go on, rehearse, scale, thermometer"],
  ["bench", "cups", "one stock of each ink, part A, part B, how many cups"],
  ["bench", "mixes", "seal coat, edge coat, thin flood, ripples, plaster paste, glue, wetting spray"],
  ["bench", "stock", "shopping list, kits, prices, what is on the shelf"],
  ["bench", "happened", "as planned and as it happened, real ratio, times"],
];

/** All that can be found in a scene. */
export function placesOf(id: number, scene: Scene, outcome: Outcome): Found[] {
  const at = (stage: string, part?: string) =>
    `/scenes/${id}/${stage}${part ? `?part=${encodeURIComponent(part)}` : ""}`;
  return [
    ...STAGES.map((stage): Found => ({ kind: "stage", word: stageWord(stage), more: "stage", to: at(stage.word) })),
    { kind: "stage", word: "Plans", more: "side by side, stager, kept plans", to: `/scenes/${id}/plans` },
    ...SETTINGS.map(([stage, part, holds]): Found => ({
      kind: "setting",
      word: `${stage}, ${part}`,
      more: holds,
      to: at(stage, part),
    })),
    ...(scene.figures ?? []).map((one): Found => ({
      kind: "figure",
      word: one.name,
      more: one.material.name,
      to: at("figures", "place"),
      figureId: one.id,
    })),
    ...outcome.flags.map((flag): Found => ({
      kind: "flag",
      word: flag.title,
      more: flag.sentence,
      to: at(flag.stage),
      ...(flag.figure_id ? { figureId: flag.figure_id } : {}),
      ...(flag.pour_number ? { pourNumber: flag.pour_number } : {}),
    })),
  ];
}

export const scenesFound = (scenes: readonly SceneRow[]): Found[] =>
  scenes.map((one) => ({ kind: "scene", word: one.name, more: "scene", to: `/scenes/${one.id}/pours` }));

export const wordsFound = (known: Known | undefined): Found[] =>
  (known?.words ?? []).map((one) => ({ kind: "word", word: one.word, more: one.sentence, to: null }));

const MOST = 9;

/** Those that hold every word that was typed, first those whose own word begins so. */
export function matching(all: readonly Found[], typed: string): Found[] {
  const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return all.filter((one) => one.kind === "stage").slice(0, MOST);
  const rank = (one: Found) => {
    const word = one.word.toLowerCase();
    if (!wanted.every((part) => word.includes(part) || one.more.toLowerCase().includes(part))) return null;
    return word.startsWith(wanted[0] ?? "") ? 0 : wanted.every((part) => word.includes(part)) ? 1 : 2;
  };
  return all
    .map((one, at) => ({ one, at, rank: rank(one) }))
    .filter((each): each is { one: Found; at: number; rank: 0 | 1 | 2 } => each.rank !== null)
    .sort((a, b) => a.rank - b.rank || a.at - b.at)
    .slice(0, MOST)
    .map(({ one }) => one);
}
