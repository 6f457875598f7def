import { useEffect, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { LatestOnly } from "../../api/latest-only";
import type { Beginning, Begun } from "../../api/types";

/** The plan of the answers so far; while the next is laid, the one before stays. */
export function useBegun(beginning: Beginning, now: string) {
  const [begun, setBegun] = useState<{ begun: Begun; of: Beginning } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [line] = useState(
    () =>
      new LatestOnly<Beginning, Begun>(
        (asked) => ask(api.POST("/api/begin", { body: { beginning: asked, now } })),
        (made, of) => {
          setBegun({ begun: made, of });
          setProblem(null);
        },
        (flaw) => {
          setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
        },
      ),
  );
  useEffect(() => {
    line.ask(beginning);
  }, [line, beginning]);
  return { begun: begun?.begun ?? null, laid: begun?.of === beginning, problem };
}
