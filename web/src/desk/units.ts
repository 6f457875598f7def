import { createContext, useContext } from "react";

import type { Units } from "../api/types";

export const METRIC: Units = { length: "mm", temperature: "c", volume: "ml", mass: "g" };

/** The units in which is read and typed, wherever a quantity is asked for. */
export const UnitsContext = createContext<Units>(METRIC);

export const useUnits = () => useContext(UnitsContext);
