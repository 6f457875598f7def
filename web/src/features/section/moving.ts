import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { useRef } from "react";

import type { Figure, Scene } from "../../api/types";
import { useDrag } from "../../sounding/drag";
import { withFigure } from "../../desk/edits";

/** How far a figure has been moved since the outcome that is drawn; null if it is in neither. */
export function useMoved(id: string): Figure["place"] | null {
  const { scene, outcomeOf } = useDocument();
  const now = scene.figures?.find((one) => one.id === id)?.place;
  const then = outcomeOf.figures?.find((one) => one.id === id)?.place;
  if (!now || !then) return null;
  return {
    x_mm: now.x_mm - then.x_mm,
    behind_mm: now.behind_mm - then.behind_mm,
    height_mm: now.height_mm - then.height_mm,
  };
}

/** Drag of a figure: shown while it moves, kept when it is let go. */
export function useFigureDrag(id: string, place: (from: Figure["place"], dx: number, dy: number) => Figure["place"]) {
  const desk = useDocument();
  const choice = useChoice();
  const from = useRef<Scene | null>(null);
  return useDrag(
    () => {
      from.current = desk.scene;
      choice.chooseFigure(id);
    },
    ({ dx, dy, done }) => {
      const start = from.current?.figures?.find((each) => each.id === id);
      if (!from.current || !start || start.locked) return;
      const scene = withFigure(from.current, id, { place: place(start.place, dx, dy) });
      if (!done) desk.show(scene);
      else if (dx || dy) desk.keep(scene, `moved ${start.name}`);
    },
  );
}

export const round = (mm: number) => Math.round(mm * 2) / 2;
