import { useCallback } from "react";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { useChoice } from "./choice";
import { useDocument } from "./document";

/** Under this a dragged kind of figure travels from the inspector to the sheet. */
export const FIGURE_KIND = "application/x-gondola-figure";

export interface Spot {
  x_mm?: number;
  behind_mm?: number;
  depth_mm?: number;
}

/** Adds a figure of a kind, or of a mesh; the core finds it a free place, at the spot if one is given. */
export function useNewFigure() {
  const { scene, keep } = useDocument();
  const { chooseFigure } = useChoice();
  return useCallback(
    async (kind: string, more: { mesh?: { mesh_id: string; name: string }; spot?: Spot } = {}) => {
      const { figure } = await ask(
        api.POST("/api/figures/new", { body: { scene, kind, ...more.mesh, spot: more.spot ?? null } }),
      );
      keep({ ...scene, figures: [...(scene.figures ?? []), figure] }, `added ${figure.name}`.slice(0, 100));
      chooseFigure(figure.id);
    },
    [scene, keep, chooseFigure],
  );
}
