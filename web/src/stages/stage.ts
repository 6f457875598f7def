import type { ComponentType, ReactNode } from "react";

/** One thing that can stand in the middle of a stage; `words` are those that lead to the others. */
export interface StageView {
  word: string;
  Part: ComponentType<{ words: ReactNode }>;
}

/** A stage of the work: its word, what is typed there, and what is seen. */
export interface Stage {
  word: string;
  Inspector: ComponentType;
  views: readonly StageView[];
}
