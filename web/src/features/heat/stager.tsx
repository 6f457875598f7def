import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";
import { Pill } from "../../ui/pill";
import { Choice, Title } from "../../ui/row";
import { temperatureText } from "../../units/display";
import { TemperatureField } from "../fields";
import { useDesk } from "../workspace";

/** The fewest pours that stop nothing, in two rooms and on twice the footprint. */
export function Stager() {
  const desk = useDesk();
  const { scene, units, pourNumber } = desk;
  const [cool, setCool] = useState(15);
  const [warm, setWarm] = useState(23);
  const [chosen, choose] = useState<string | null>(null);
  const resin = chosen ?? scene.resins.find((one) => one.id === "deep")?.id ?? scene.pours[pourNumber - 1]?.resin_id ?? "";
  const asking = useMutation({
    mutationFn: async () => {
      const { data, error, response } = await api.POST("/api/heat/stagings", { body: { scene, resin_id: resin, rooms_c: [cool, warm] } });
      if (data) return data;
      throw refused(error, response.status);
    },
  });
  return (
    <Box marginTop="4" role="group" aria-label="Stage it">
      <Title>Stage it</Title>
      <Choice label="in" value={resin} options={scene.resins.map((one) => [one.id, one.name] as const)} take={choose} />
      <TemperatureField label="cool room" value={cool} take={setCool} />
      <TemperatureField label="warm room" value={warm} take={setWarm} />
      <Pill marginTop="2" onClick={() => { asking.mutate(); }} loading={asking.isPending}>fewest pours that stop nothing</Pill>
      {asking.error ? <Box role="alert" color="caution">{asking.error.message}</Box> : null}
      {asking.data?.map((one) => (
        <Box key={one.name} marginTop="2" paddingLeft="2" borderLeft="3px solid" borderColor={one.clear ? "set" : "caution"} fontSize="14px">
          <b>{one.name}: {one.pours_count} pours</b>, {one.demould_d === null ? "not hard within 14 days of the last" : `dam off after ${one.demould_d} d`}, {one.hottest_c === null ? "" : one.hottest_c >= 100 ? "runs away" : `${temperatureText(one.hottest_c, units)} at most`}
          {one.clear ? null : <Box color="caution">{one.stops.join("; ")}</Box>}
          {one.after_words ? <Box>{one.after_words.charAt(0).toUpperCase() + one.after_words.slice(1)}</Box> : null}
          {one.name.includes("footprint") ? null : <Box><Pill tone="depth" marginTop="1" aria-label={`Try: ${one.remedy.label}`} onClick={() => { desk.tryOut(one.remedy); }}>try it</Pill></Box>}
        </Box>
      ))}
    </Box>
  );
}
