import { useQueries } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Glance, SceneRow } from "../../api/types";

export interface Glances {
  of: Map<number, Glance>;
  /** why a scene cannot be sounded */
  problems: Map<number, string>;
}

/** What decides about each scene, by its id; each comes in by itself. */
export function useGlances(scenes: readonly SceneRow[]): Glances {
  return useQueries({
    queries: scenes.map(({ id, revision }) => ({
      queryKey: ["glance", id, revision],
      queryFn: () => ask(api.GET("/api/scenes/{scene_id}/glance", { params: { path: { scene_id: id } } })),
    })),
    combine: (found) => ({
      of: new Map(found.flatMap((one, at) => (one.data && scenes[at] ? [[scenes[at].id, one.data] as const] : []))),
      problems: new Map(
        found.flatMap((one, at) => (one.error && scenes[at] ? [[scenes[at].id, one.error.message] as const] : [])),
      ),
    }),
  });
}
