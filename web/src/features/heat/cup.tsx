import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../../api/client";
import { Choice, Row } from "../../ui/row";
import { lengthText, massText, temperatureText } from "../../units/display";

const minutes = (value: number | null) =>
  value === null ? "never" : value < 90 ? `${Math.round(value)} min` : `${(value / 60).toFixed(1)} h`;

/** The mixed cup as a body of its own: how warm it gets while it stands. */
export function Cup() {
  const { scene, outcome, units } = useDocument();
  const { pourNumber } = useChoice();
  const [vessel, setVessel] = useState("cup");
  const pour = scene.pours[pourNumber - 1];
  const told = outcome.pours[pourNumber - 1];
  const resin = scene.resins.find((one) => one.id === pour?.resin_id);
  const mass_g = told ? Math.max(5, Math.round(told.cup.mix.mix_g / told.cup.mix.cups_count)) : 100;
  const room_c = scene.brief.room.day_c;
  const cup = useQuery({
    queryKey: ["cup", resin, mass_g, pour?.mix_c, room_c, vessel, units],
    enabled: resin !== undefined && !resin.light,
    staleTime: Infinity,
    retry: false,
    queryFn: async () => {
      if (!resin || !pour) throw new Error("no resin");
      return ask(api.POST("/api/heat/cup", { body: { resin, mass_g, mix_c: pour.mix_c, room_c, vessel } }));
    },
  }).data;
  if (!cup) return null;
  const [width, height] = [224, 58];
  const span = Math.min(cup.at_min.at(-1) ?? 1, 2 * Math.max(cup.peak_at_min, 30));
  const top = Math.max(60, cup.peak_c);
  const line = cup.at_min
    .flatMap((at, index) =>
      at > span
        ? []
        : [`${(at / span) * width} ${height - (((cup.hottest_c[index] ?? 20) - 15) / (top - 15)) * height}`],
    )
    .join("L");
  return (
    <Box marginTop="3" role="group" aria-label="In the cup">
      <Box fontWeight={800}>
        In the cup{" "}
        <Box as="span" fontWeight={400} color="soft" fontStyle="italic">
          {massText(cup.mass_g, units)}, {lengthText(cup.radius_mm * 2, units)} across
        </Box>
      </Box>
      <Choice
        label="stands in"
        value={vessel}
        options={[
          ["cup", "a cup"],
          ["bucket", "a bucket"],
          ["tray", "a shallow tray"],
        ]}
        take={setVessel}
      />
      <Box as="dl" margin="0">
        <Row label="working time" hint={`until it is twice as thick, or ${temperatureText(50, units)}`}>
          {minutes(cup.working_min)}
        </Row>
        <Row label={`over ${temperatureText(50, units)}`}>{minutes(cup.warm_50_min)}</Row>
        <Row label="hottest">
          {cup.peak_c >= 150 ? `over ${temperatureText(150, units)}` : temperatureText(cup.peak_c, units)},{" "}
          {minutes(cup.peak_at_min)}
        </Row>
      </Box>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`The cup warms itself to ${temperatureText(cup.peak_c, units)}`}
      >
        <rect width={width} height={height} fill="var(--plot)" stroke="var(--hair)" />
        <path
          d={`M0 ${height - ((50 - 15) / (top - 15)) * height}H${width}`}
          stroke="var(--caution)"
          strokeDasharray="4 3"
        />
        <path d={`M${line}`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
      </svg>
      <Box fontSize="14px" color={cup.warm_50_min === null ? "soft" : "caution"}>
        {cup.advice}
      </Box>
    </Box>
  );
}
