import { bed } from "./bed";
import { bench } from "./bench";
import { figures } from "./figures";
import { finish } from "./finish";
import { log } from "./log";
import { pours } from "./pours";
import type { Stage } from "./stage";
import { tank } from "./tank";
import { water } from "./water";

/** The stages in the order of the work. */
export const STAGES: readonly Stage[] = [tank, bed, figures, water, pours, bench, finish, log];

export function stageOf(word: string | undefined): Stage {
  return STAGES.find((stage) => stage.word === word) ?? pours;
}

export const stageWord = (stage: Stage) => stage.word.charAt(0).toUpperCase() + stage.word.slice(1);
export type { Stage } from "./stage";
