import { createContext, useContext } from "react";

/** Where the gondola hangs, and the moment that is looked at. Only what shows it reads this. */
export interface Cursor {
  depth_mm: number;
  at_h: number;
}

/** The hands that move it; they stay the same, so who only moves it is not drawn again. */
export interface CursorHands {
  lower: (depth_mm: number) => void;
  scrub: (at_h: number) => void;
}

export const CursorContext = createContext<Cursor | null>(null);
export const CursorHandsContext = createContext<CursorHands | null>(null);

export function useCursor(): Cursor {
  const cursor = useContext(CursorContext);
  if (!cursor) throw new Error("There is no gondola here.");
  return cursor;
}

export function useCursorHands(): CursorHands {
  const hands = useContext(CursorHandsContext);
  if (!hands) throw new Error("There is no gondola here.");
  return hands;
}
