import { useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";
import { Label } from "../../sounding/label";
import type { Frame } from "../../sounding/page";

/** Smallest mark that a screen can show; what is smaller is drawn as pale as it would be. */
const LEAST_PX = 0.45;

/** Bubbles that an eye would make out, at their true size, each where it would hang. */
export function Bubbles({ frame, side }: { frame: Frame; side: boolean }) {
  const { outcomeOf, outcome } = useDocument();
  const { data } = useQuery({
    queryKey: ["bubbles", outcome.scene_digest],
    staleTime: Infinity,
    placeholderData: (before) => before,
    queryFn: () => ask(api.POST("/api/bubbles", { body: outcomeOf })),
  });
  if (!data) return null;
  const across = side ? data.behind_mm : data.x_mm;
  const told = data.drawn_fraction < 1 ? `one of ${Math.round(1 / data.drawn_fraction)} is drawn` : "all are drawn";
  return (
    <g role="img" aria-label={`${data.size_mm.length} bubbles at true size, ${told}`} pointerEvents="none">
      {data.size_mm.map((size, at) => {
        const radius = (size * frame.scale) / 2;
        return (
          <circle
            key={at}
            cx={frame.x0 + (across[at] ?? 0) * frame.scale}
            cy={frame.top + (data.depth_mm[at] ?? 0) * frame.scale}
            r={Math.max(LEAST_PX, radius)}
            fill="#ffffff"
            fillOpacity={0.75 * Math.min(1, (radius / LEAST_PX) ** 2)}
          />
        );
      })}
      {data.drawn_fraction < 1 ? (
        <Label x={frame.x0 + 6} y={frame.top - 6} fontSize={13} fontStyle="italic" fill="var(--soft)">
          {`bubbles at true size, ${told}`}
        </Label>
      ) : null}
    </g>
  );
}
