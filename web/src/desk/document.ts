import { createContext, useContext } from "react";

import type { Outcome, Remedy, Scene, Units } from "../api/types";
import type { Changing } from "./changes";
import type { SceneWork } from "./use-scene";

/** A remedy that is tried: a document of its own, which edits change until it is kept or dropped. */
export interface Trial {
  label: string;
  before: Outcome;
  document: Scene;
  /** True once something was changed by hand while it was open */
  edited: boolean;
}

/** What lies on the desk: the document and its outcome. */
export interface Document {
  work: SceneWork;
  scene: Scene;
  outcome: Outcome;
  /** the document that the outcome belongs to; behind `scene` while a drag is answered */
  outcomeOf: Scene;
  units: Units;
  /** show a change while it is dragged, without saving */
  show: (scene: Scene) => void;
  /** keep a change; it is saved as one goes, or goes into what is tried */
  keep: (scene: Scene, note: string) => void;
  /** ask the core for a change that takes more than one field, and keep it */
  change: (change: Changing) => void;
  trial: Trial | null;
  tryOut: (remedy: Remedy) => void;
  endTrial: (kept: boolean) => void;
  /** why the last change could not be made */
  refusal: string | null;
}

export const DocumentContext = createContext<Document | null>(null);

export function useDocument(): Document {
  const document = useContext(DocumentContext);
  if (!document) throw new Error("There is no document on this desk.");
  return document;
}
