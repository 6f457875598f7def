import { createContext, useContext } from "react";

/** The pour and the figure that are chosen. */
export interface Choice {
  pourNumber: number;
  figureId: string | null;
  choosePour: (number: number) => void;
  chooseFigure: (id: string | null) => void;
}

export const ChoiceContext = createContext<Choice | null>(null);

export function useChoice(): Choice {
  const choice = useContext(ChoiceContext);
  if (!choice) throw new Error("Nothing can be chosen here.");
  return choice;
}
