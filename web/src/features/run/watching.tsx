import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { RunNow, Scene, Units } from "../../api/types";
import { temperatureFigure, temperatureUnit } from "../../units/display";

const [WIDE, HIGH, SOLE] = [300, 150, 22];
const LOOK_MS = 10_000;

/** What a thermometer reads of the pour that is in, over the band that was reckoned with. */
export function Watching({ now, units, scene }: { now: RunNow; units: Units; scene: Scene }) {
  const last = Math.max(0, ...now.state.poured.map((id) => scene.pours.findIndex((pour) => pour.id === id) + 1));
  const watch = useQuery({
    queryKey: ["run watch", now.id, last],
    enabled: last > 0,
    staleTime: LOOK_MS,
    refetchInterval: LOOK_MS,
    queryFn: () =>
      ask(api.GET("/api/runs/{run_id}/watch", { params: { path: { run_id: now.id }, query: { pour_number: last } } })),
  }).data;
  if (!watch || watch.band.at_h.length < 2) return null;
  const { band } = watch;
  const end = Math.min(band.at_h.at(-1) ?? 24, 24);
  const x = scaleLinear([0, end], [30, WIDE]);
  const shown = band.at_h.map((_, index) => index).filter((index) => (band.at_h[index] ?? 0) <= end);
  const y = scaleLinear(
    [
      Math.min(...shown.map((index) => band.low_c[index] ?? 0), ...watch.measured_c) - 1,
      Math.max(...shown.map((index) => band.high_c[index] ?? 0), ...watch.measured_c) + 1,
    ],
    [HIGH - SOLE, 14],
  );
  const at = (values: number[], index: number) => y(values[index] ?? 0);
  const strip = area<number>(
    (index) => x(band.at_h[index] ?? 0),
    (index) => at(band.low_c, index),
    (index) => at(band.high_c, index),
  );
  const middle = line<number>(
    (index) => x(band.at_h[index] ?? 0),
    (index) => at(band.middle_c, index),
  );
  const read = line<number>(
    (index) => x(watch.at_h[index] ?? 0),
    (index) => at(watch.measured_c, index),
  );
  return (
    <Box role="group" aria-label="Measured over predicted" fontSize="20px" maxWidth="340px">
      <Box color="soft" fontSize="20px">
        Pour {last}, in its middle
      </Box>
      <svg width={WIDE + 8} height={HIGH} aria-hidden="true">
        <path d={strip(shown) ?? ""} fill="var(--set-pale)" />
        <path d={middle(shown) ?? ""} fill="none" stroke="var(--set)" strokeWidth={1.5} />
        <path d={read(watch.at_h.map((_, index) => index)) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={3} />
        {y.ticks(3).map((tick) => (
          <text key={tick} x={26} y={y(tick) + 5} textAnchor="end" fontSize={15} fill="var(--soft)">
            {temperatureFigure(tick, units)}
          </text>
        ))}
        {[0, end / 2, end].map((hours) => (
          <text
            key={hours}
            x={x(hours)}
            y={HIGH - 4}
            textAnchor={hours === 0 ? "start" : hours === end ? "end" : "middle"}
            fontSize={15}
            fill="var(--soft)"
          >
            {hours} h
          </text>
        ))}
      </svg>
      <Box
        fontWeight={watch.verdict.stop ? 800 : 400}
        color={watch.verdict.stop ? "caution" : "ink"}
        role={watch.verdict.stop ? "alert" : undefined}
      >
        {watch.verdict.words}
      </Box>
      <Box color="soft" fontSize="20px">
        {temperatureUnit(units)}, hours from the pour
      </Box>
    </Box>
  );
}
