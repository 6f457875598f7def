/** Changes of a scene that the core makes: the page only asks for them. */
import { ask } from "../api/ask";
import { api } from "../api/client";
import type { EditAsked, Remedy, Scene } from "../api/types";

export type Changing = EditAsked["change"];

export const makeChange = (scene: Scene, change: Changing): Promise<Remedy> =>
  ask(api.POST("/api/edits/make", { body: { scene, change } }));

/** The scene with a remedy taken; refused in a sentence where it no longer fits. */
export const takeRemedy = (scene: Scene, remedy: Remedy): Promise<Scene> =>
  ask(api.POST("/api/edits/apply", { body: { scene, operations: remedy.edits, digest: remedy.digest } }));
