import { createContext, useContext, useMemo, useState } from "react";

import type { Tool } from "./brush";

/** The brush in hand, and where the bed is cut for the section below the chart. */
export interface BedTools {
  tool: Tool;
  size_mm: number;
  strength_mm: number;
  cut_mm: number;
  take: (change: Partial<Omit<BedTools, "take">>) => void;
}

export const BedToolsContext = createContext<BedTools | null>(null);

export function useBedTools(): BedTools {
  const tools = useContext(BedToolsContext);
  if (!tools) throw new Error("There are no brushes here.");
  return tools;
}

/** The brushes of a tank, as they are first laid out. */
export function useBedToolsState(behind_mm: number): BedTools {
  const [tools, setTools] = useState<Omit<BedTools, "take">>({
    tool: "raise",
    size_mm: 24,
    strength_mm: 2,
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
