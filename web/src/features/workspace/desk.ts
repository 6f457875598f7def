import { createContext, useContext } from "react";

import type { Outcome, Remedy, Scene, Units } from "../../api/types";
import type { SceneWork } from "../scenes";

/** What lies on the desk: the scene, its outcome, where the gondola hangs, what is selected. */
export interface Desk {
  work: SceneWork;
  scene: Scene;
  outcome: Outcome;
  /** the document that the outcome belongs to; behind `scene` while a drag is answered */
  outcomeOf: Scene;
  units: Units;
  depth_mm: number;
  at_h: number;
  lower: (depth_mm: number) => void;
  scrub: (at_h: number) => void;
  pourNumber: number;
  figureId: string | null;
  choosePour: (number: number) => void;
  chooseFigure: (id: string | null) => void;
  /** show a change while it is dragged, without saving */
  show: (scene: Scene) => void;
  /** keep a change; it is saved as one goes */
  keep: (scene: Scene, note: string) => void;
  trial: { remedy: Remedy; before: Outcome; document: Scene } | null;
  tryOut: (remedy: Remedy) => void;
  endTrial: (kept: boolean) => void;
}

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error("There is no desk here.");
  return desk;
}
