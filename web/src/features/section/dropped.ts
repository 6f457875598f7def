import type { DragEvent } from "react";

import { FIGURE_KIND, type Spot, useNewFigure } from "../../desk/new-figure";
import type { Frame } from "../../sounding/page";

/** Takes a kind of figure that is dropped on a drawing, and adds it there. */
export function useDropped(frame: Frame, spotOf: (across_mm: number, up_mm: number) => Spot) {
  const add = useNewFigure();
  return {
    onDragOver: (event: DragEvent<SVGElement>) => {
      if (event.dataTransfer.types.includes(FIGURE_KIND)) event.preventDefault();
    },
    onDrop: (event: DragEvent<SVGElement>) => {
      const kind = event.dataTransfer.getData(FIGURE_KIND);
      const svg = event.currentTarget.ownerSVGElement;
      if (!kind || !svg) return;
      event.preventDefault();
      const box = svg.getBoundingClientRect();
      const across = (event.clientX - box.left - frame.x0) / frame.scale;
      const up = (frame.bottom - (event.clientY - box.top)) / frame.scale;
      void add(kind, { spot: spotOf(Math.round(across), Math.round(up)) });
    },
  };
}
