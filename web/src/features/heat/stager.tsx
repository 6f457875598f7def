import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box, Flex } from "@chakra-ui/react";
import { useCallback, useState } from "react";

import { api } from "../../api/client";
import type { Staging } from "../../api/types";
import { useJob } from "../../jobs/use-job";
import { Pill } from "../../ui/pill";
import { Choice, Title } from "../../ui/row";
import { temperatureText } from "../../units/display";
import { TemperatureField } from "../../desk/fields";
import { Problem } from "../../ui/problem";

const stagingsOf = (id: string): Promise<Staging[]> =>
  ask(api.GET("/api/jobs/{job_id}/stagings", { params: { path: { job_id: id } } }));

/** The fewest pours that stop nothing, in two rooms and on twice the footprint. */
export function Stager() {
  const { scene, units, tryOut } = useDocument();
  const [cool, setCool] = useState(15);
  const [warm, setWarm] = useState(23);
  const [chosen, choose] = useState<string | null>(null);
  const resin = chosen ?? [...scene.resins].sort((a, b) => b.most_pour_mm - a.most_pour_mm)[0]?.id ?? "";
  const begin = useCallback(
    () => ask(api.POST("/api/jobs/stagings", { body: { scene, resin_id: resin, rooms_c: [cool, warm] } })),
    [scene, resin, cool, warm],
  );
  const { job, result, problem, busy, start, cancel } = useJob(begin, stagingsOf);
  return (
    <Box marginTop="4" role="group" aria-label="Stage it">
      <Title>Stage it</Title>
      <Choice label="in" value={resin} options={scene.resins.map((one) => [one.id, one.name] as const)} take={choose} />
      <TemperatureField label="cool room" value={cool} take={setCool} />
      <TemperatureField label="warm room" value={warm} take={setWarm} />
      <Flex gap="2" marginTop="2" align="baseline">
        <Pill onClick={start} disabled={busy}>
          fewest pours that stop nothing
        </Pill>
        {busy ? (
          <Pill onClick={cancel} disabled={job === null}>
            end it
          </Pill>
        ) : null}
      </Flex>
      {busy ? (
        <Box color="soft" fontSize="14px" role="status">
          {job?.state === "running" ? `trying, ${Math.round(job.progress_fraction * 100)} %` : "waiting its turn"}
        </Box>
      ) : null}
      <Problem>{problem}</Problem>
      {result?.map((one) => (
        <Box
          key={one.name}
          marginTop="2"
          paddingLeft="2"
          borderLeft="3px solid"
          borderColor={one.clear ? "set" : "caution"}
          fontSize="14px"
        >
          <b>
            {one.name}: {one.pours_count} pours
          </b>
          , {one.demould_d === null ? "not hard within 14 days of the last" : `dam off after ${one.demould_d} d`},{" "}
          {one.hottest_c === null
            ? ""
            : one.runs_away
              ? "runs away"
              : `${temperatureText(one.hottest_c, units)} at most`}
          {one.clear ? null : <Box color="caution">{one.stops.join("; ")}</Box>}
          {one.after_words ? <Box>{one.after_words.charAt(0).toUpperCase() + one.after_words.slice(1)}</Box> : null}
          <Box>
            <Pill
              tone="depth"
              marginTop="1"
              aria-label={`Try: ${one.remedy.label}`}
              onClick={() => {
                tryOut(one.remedy);
              }}
            >
              try it
            </Pill>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
