import { type PointerEvent as ReactPointerEvent, useCallback, useRef } from "react";

export interface Moved {
  /** since the press, in page units */
  dx: number;
  dy: number;
  done: boolean;
}

/** Press, drag, let go, with the pointer captured; a plain press ends with dx = dy = 0. */
export function useDrag(start: () => void, move: (moved: Moved) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  const onPointerDown = useCallback(
    (event: ReactPointerEvent<SVGElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { x: event.clientX, y: event.clientY };
      start();
    },
    [start],
  );
  const tell = useCallback(
    (event: ReactPointerEvent<SVGElement>, done: boolean) => {
      if (!from.current) return;
      const moved = { dx: event.clientX - from.current.x, dy: event.clientY - from.current.y, done };
      if (done) from.current = null;
      move(moved);
    },
    [move],
  );
  return {
    onPointerDown,
    onPointerMove: useCallback(
      (event: ReactPointerEvent<SVGElement>) => {
        tell(event, false);
      },
      [tell],
    ),
    onPointerUp: useCallback(
      (event: ReactPointerEvent<SVGElement>) => {
        tell(event, true);
      },
      [tell],
    ),
    onPointerCancel: useCallback(
      (event: ReactPointerEvent<SVGElement>) => {
        tell(event, true);
      },
      [tell],
    ),
  };
}
