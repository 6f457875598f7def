import type { ComponentType, ReactNode } from "react";

/** One thing that can stand in the middle of a stage; `words` are those that lead to the others. */
export interface StageView {
  word: string;
  Part: ComponentType<{ words: ReactNode }>;
}

/** A stage of the work: its word, what is typed there, and what is seen; on a phone what is typed may come first. */
export interface Stage {
  word: string;
  Inspector: ComponentType;
  typedFirst?: boolean;
  views: readonly StageView[];
}
