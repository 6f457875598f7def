import { ask } from "../api/ask";
import { api } from "../api/client";
import type { Scene, SceneState } from "../api/types";

/** Adds a scene from the text of its file, of any version. */
export async function bringScene(text: string): Promise<SceneState> {
  return ask(
    api.POST("/api/scenes", {
      body: text as unknown as Record<string, never>,
      bodySerializer: () => text,
      headers: { "Content-Type": "application/json" },
    }),
  );
}

export const addScene = (scene: Scene): Promise<SceneState> => bringScene(JSON.stringify(scene));
