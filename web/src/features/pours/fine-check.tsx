import { Box } from "@chakra-ui/react";
import { useCallback, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Outcome, Scene } from "../../api/types";
import { useDocument } from "../../desk/document";
import { useJob } from "../../jobs/use-job";
import { Deed } from "../../ui/pill";
import { lengthText, temperatureText } from "../../units/display";
import { Problem } from "../../ui/problem";
import { Working } from "../../ui/working";

const outcomeOf = (id: string): Promise<Outcome> =>
  ask(api.GET("/api/jobs/{job_id}/fine-march", { params: { path: { job_id: id } } }));

/** The long march on fine cells, worked off by the queue; it goes on if the page is left. */
export function FineCheck() {
  const { units, scene } = useDocument();
  const [of, setOf] = useState<Scene | null>(null);
  const begin = useCallback(() => {
    setOf(scene);
    return ask(api.POST("/api/jobs/fine-march", { body: { scene } }));
  }, [scene]);
  const { job, result, problem, busy, start, cancel } = useJob(begin, outcomeOf);
  const old = of !== scene;
  const share = job?.progress_fraction ?? 0;
  return (
    <Box marginTop="4">
      <Deed width="100%" onClick={start} disabled={busy}>
        Check on fine cells
      </Deed>
      {busy ? (
        <Working
          label="fine march"
          share={share}
          words={job?.state === "running" ? `marching, ${Math.round(share * 100)} %` : "waiting its turn"}
          cancel={cancel}
          begun={job !== null}
        />
      ) : null}
      <Problem>{problem}</Problem>
      {job?.state === "cancelled" ? (
        <Box color="soft" fontSize="14px">
          Ended; the draft stands.
        </Box>
      ) : null}
      {result ? (
        <Box marginTop="2" fontSize="14px" color={old ? "soft" : "ink"}>
          {old ? "Before your last change: " : `cells of ${lengthText(result.march.cell_mm, units, 1)}: `}
          {result.pours
            .map((pour) =>
              pour.heat.cure ? `pour ${pour.number} ${temperatureText(pour.heat.cure.peak_c, units, 1)}` : null,
            )
            .filter(Boolean)
            .join(", ")}
        </Box>
      ) : null}
    </Box>
  );
}
