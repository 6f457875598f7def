import { createContext, useContext } from "react";

export interface Place {
  x_mm: number;
  depth_mm: number;
}

export interface Touched {
  touched: Place | null;
  touch: (place: Place | null) => void;
}

/** The place of the section that was touched for its temperature curve. */
export const TouchedContext = createContext<Touched>({ touched: null, touch: () => undefined });

export const useTouched = () => useContext(TouchedContext);
