import { useMutation, useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Outcome, Remedy, Scene } from "../../api/types";
import { takeRemedy } from "../../desk/changes";

/** A plan that is laid beside the own one: its name, its document, and what will happen. */
export interface Laid {
  name: string;
  scene: Scene;
  outcome: Outcome;
}

/** What is chosen to lie beside the own plan: a proposed one, or one that was kept. */
export type Chosen = { name: string; remedy: Remedy } | { name: string; kept: true };

const evaluated = (scene: Scene): Promise<Outcome> => ask(api.POST("/api/evaluate", { body: scene }));

/** The chosen plan, laid: its document made, and its outcome asked for. */
export function useLaid(id: number, scene: Scene, chosen: Chosen | null) {
  return useQuery({
    queryKey: ["laid", id, chosen, scene],
    enabled: chosen !== null,
    staleTime: Infinity,
    queryFn: async (): Promise<Laid> => {
      if (!chosen) throw new Error("Nothing is chosen.");
      const params = { path: { scene_id: id, name: chosen.name } };
      const document =
        "remedy" in chosen
          ? await takeRemedy(scene, chosen.remedy)
          : await ask(api.GET("/api/scenes/{scene_id}/variants/{name}", { params }));
      return { name: chosen.name, scene: document, outcome: await evaluated(document) };
    },
  });
}

/** The own plan's outcome. */
export function useOwn(id: number, scene: Scene) {
  return useQuery({
    queryKey: ["laid", id, "own", scene],
    staleTime: Infinity,
    queryFn: async (): Promise<Laid> => ({ name: "your plan", scene, outcome: await evaluated(scene) }),
  });
}

/** What the second plan has over the first, in words. */
export function useTold(before: Scene, after: Scene | undefined) {
  return useQuery({
    queryKey: ["beside", before, after],
    enabled: after !== undefined,
    staleTime: Infinity,
    queryFn: () => ask(api.POST("/api/beside", { body: { before, after: after ?? before } })),
  });
}

/** Kept plans of a scene, and what can be done with them. */
export function useKept(id: number) {
  const params = { path: { scene_id: id } };
  const rows = useQuery({
    queryKey: ["variants", id],
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/variants", { params })),
  });
  const again = { onSuccess: () => rows.refetch() };
  const keep = useMutation({
    mutationFn: (body: { name: string; document: Scene }) =>
      ask(api.POST("/api/scenes/{scene_id}/variants", { params, body })),
    ...again,
  });
  const rename = useMutation({
    mutationFn: ({ name, to }: { name: string; to: string }) =>
      ask(
        api.POST("/api/scenes/{scene_id}/variants/{name}/name", {
          params: { path: { scene_id: id, name } },
          body: { name: to },
        }),
      ),
    ...again,
  });
  const letGo = useMutation({
    mutationFn: (name: string) =>
      ask(api.DELETE("/api/scenes/{scene_id}/variants/{name}", { params: { path: { scene_id: id, name } } })),
    ...again,
  });
  return { rows: rows.data ?? [], keep, rename, letGo };
}
