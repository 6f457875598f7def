import { Box } from "@chakra-ui/react";
import { useCallback, useRef, useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Chances as Told, Scene } from "../../api/types";
import { useDocument } from "../../desk/document";
import { inHundred, useTellDrawn } from "../../desk/drawn";
import { useJob } from "../../jobs/use-job";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Working } from "../../ui/working";
import { Title } from "../../ui/row";
import { hoursText, temperatureFigure, temperatureUnit } from "../../units/display";

const chancesOf = (id: string): Promise<Told> =>
  ask(api.GET("/api/jobs/{job_id}/chances", { params: { path: { job_id: id } } }));
const DRAWS = 128;

/** How likely each trouble is, over draws of room, bottle, ratio and lateness; worked off by the queue. */
export function Chances() {
  const { scene, outcome } = useDocument();
  const tell = useTellDrawn();
  const [of, setOf] = useState<Scene | null>(null);
  const digest = useRef("");
  const begin = useCallback(() => {
    setOf(scene);
    digest.current = outcome.scene_digest;
    return ask(api.POST("/api/jobs/chances", { body: { scene, draws_count: DRAWS, seed: 1 } }));
  }, [scene, outcome.scene_digest]);
  const read = useCallback(
    async (id: string) => {
      const told = await chancesOf(id);
      tell(digest.current, told);
      return told;
    },
    [tell],
  );
  const { job, result, problem, busy, start, cancel } = useJob(begin, read);
  const share = job?.progress_fraction ?? 0;
  return (
    <Box role="group" aria-label="Chances">
      <Title>How sure is it?</Title>
      <Box fontSize="14px" color="soft" marginBottom="2">
        Room, bottle, ratio and how late you come are drawn {DRAWS} times as they may be off.
      </Box>
      <Pill onClick={start} disabled={busy}>
        draw it {DRAWS} times
      </Pill>
      {busy ? (
        <Working
          label="draws"
          share={share}
          words={job?.state === "running" ? `drawing, ${Math.round(share * 100)} %` : "waiting its turn"}
          cancel={cancel}
          begun={job !== null}
        />
      ) : null}
      <Problem>{problem}</Problem>
      {job?.state === "cancelled" ? <Box color="soft">Ended; nothing was drawn.</Box> : null}
      {result ? <Drawn told={result} old={of !== scene} /> : null}
    </Box>
  );
}

function Drawn({ told, old }: { told: Told; old: boolean }) {
  const { units } = useDocument();
  const degrees = (c: number | null) => (c === null ? "-" : temperatureFigure(c, units));
  return (
    <Box marginTop="3" color={old ? "soft" : "ink"}>
      {old ? <Box fontStyle="italic">Before your last change:</Box> : null}
      {told.troubles.length === 0 ? <Box>Nothing went wrong in {told.draws_count} draws.</Box> : null}
      <Box as="ul" listStyleType="none" marginBottom="3">
        {told.troubles.map((one) => (
          <Box as="li" key={`${one.code}-${one.pour_number ?? ""}`} paddingY="3px" lineHeight="1.25">
            <Box as="span" fontWeight={800}>
              {inHundred(one.chance_fraction)}{" "}
            </Box>
            {one.words}
          </Box>
        ))}
      </Box>
      <Box asChild width="100%" fontSize="14px">
        <table aria-label="Nine in ten draws">
          <thead>
            <tr>
              {["pour", `peak ${temperatureUnit(units)}`, "tack opens", "next bonds"].map((word) => (
                <Box asChild key={word} textAlign="left" color="soft" fontWeight={400} paddingRight="6px">
                  <th scope="col">{word}</th>
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {told.pours.map((one) => (
              <Box asChild key={one.pour_number} borderTop="1px solid" borderColor="wash">
                <tr>
                  <td>{one.pour_number}</td>
                  <td>
                    {degrees(one.peak_low_c)} to {degrees(one.peak_high_c)}
                  </td>
                  <td>
                    {hoursText(one.opens_low_h)} to {one.opens_high_h === null ? "never" : hoursText(one.opens_high_h)}
                  </td>
                  <td>{one.bonds_fraction === null ? "" : inHundred(one.bonds_fraction)}</td>
                </tr>
              </Box>
            ))}
          </tbody>
        </table>
      </Box>
    </Box>
  );
}
