import { type PointerEvent, useRef } from "react";

/** Hands for what is dragged about: told by how many dots the pointer moved, right and down. */
export function useDrag(moved: (right: number, down: number) => void) {
  const last = useRef<{ x: number; y: number } | null>(null);
  return {
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      last.current = { x: event.clientX, y: event.clientY };
    },
    onPointerMove: ({ clientX: x, clientY: y }: PointerEvent) => {
      if (!last.current) return;
      moved(x - last.current.x, y - last.current.y);
      last.current = { x, y };
    },
    onPointerUp: () => {
      last.current = null;
    },
  };
}
