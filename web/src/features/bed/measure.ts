import { useDocument } from "../../desk/document";
import { useCallback, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { MeasuredDepth } from "../../api/types";

import { heightAt, type Spot } from "./hands";

/** Depths typed as read off with ruler and skewer; the server lays the smoothest bed through them. */
export function useMeasure() {
  const desk = useDocument();
  const [problem, setProblem] = useState<string | null>(null);
  const { scene, keep } = desk;
  const set = useCallback(
    async (measured: MeasuredDepth[]) => {
      const bed = { ...scene.bed, measured };
      if (measured.length === 0) {
        keep({ ...scene, bed }, "no measured depths");
        return;
      }
      try {
        const { heights_mm } = await ask(
          api.POST("/api/beds/measured", { body: { points: measured, tank: scene.tank } }),
        );
        setProblem(null);
        keep({ ...scene, bed: { ...bed, heights_mm } }, "measured depths");
      } catch (flaw) {
        setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
      }
    },
    [keep, scene],
  );
  const measured = scene.bed.measured ?? [];
  const add = (spot: Spot) => {
    const { tank, bed } = scene;
    const ground = {
      heights: bed.heights_mm,
      width_mm: tank.inner_width_mm,
      behind_mm: tank.inner_behind_mm,
      most_mm: tank.wall_height_mm,
    };
    const depth = tank.fill_height_mm - heightAt(ground, spot);
    void set([...measured, { x_mm: round(spot.x_mm), behind_mm: round(spot.behind_mm), depth_mm: round(depth) }]);
  };
  return { measured, set, add, problem };
}

const round = (mm: number) => Math.max(0, Math.round(mm * 2) / 2);
