import { createContext, useContext, useMemo, useState } from "react";

import type { Tool } from "./hands";

/** What the hand does, and where the bed is cut for the section below the chart. */
export interface BedTools {
  tool: Tool;
  wide_mm: number;
  each_mm: number;
  cut_mm: number;
  take: (change: Partial<Omit<BedTools, "take">>) => void;
}

export const BedToolsContext = createContext<BedTools | null>(null);

export function useBedTools(): BedTools {
  const tools = useContext(BedToolsContext);
  if (!tools) throw new Error("There are no hands here.");
  return tools;
}

/** The hands on a bed, as they are first laid out. */
export function useBedToolsState(behind_mm: number): BedTools {
  const [tools, setTools] = useState<Omit<BedTools, "take">>({
    tool: "build up",
    wide_mm: 24,
    each_mm: 2,
    cut_mm: Math.round(behind_mm / 2),
  });
  return useMemo(
    () => ({
      ...tools,
      take: (change) => {
        setTools((now) => ({ ...now, ...change }));
      },
    }),
    [tools],
  );
}
