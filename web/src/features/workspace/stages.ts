export const STAGES = ["tank", "bed", "figures", "water", "pours", "bench", "finish", "log"] as const;

export type Stage = (typeof STAGES)[number];

export function stageOf(word: string | undefined): Stage {
  return STAGES.find((stage) => stage === word) ?? "pours";
}

export const stageWord = (stage: Stage) => stage.charAt(0).toUpperCase() + stage.slice(1);
