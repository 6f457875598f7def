import { useCursor } from "../../desk/cursor";
import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";

import { api } from "../../api/client";
import { Word } from "../../ui/pill";
import { lengthText, temperatureFigure, temperatureText } from "../../units/display";

import { useTouched } from "../../desk/touched";

const WIDTH = 270;
const HEIGHT = 74;

/** Temperature of the touched place through the days, with its cure. */
export function PlacePlot() {
  const { outcome, outcomeOf, units } = useDocument();
  const { at_h } = useCursor();
  const { touched, touch } = useTouched();
  const curve = useQuery({
    queryKey: ["curve", outcome.scene_digest, touched],
    enabled: touched !== null,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: async () => {
      const place = touched ?? { x_mm: 0, depth_mm: 0 };
      return ask(api.POST("/api/heat/curve", { body: { scene: outcomeOf, ...place } }));
    },
  }).data;
  if (!touched || !curve) return null;
  const warm = curve.temperature_c.filter((value): value is number => value !== null);
  if (warm.length === 0) return null;
  const hottest = Math.max(...warm);
  const x = scaleLinear([0, curve.at_h.at(-1) ?? 1], [0, WIDTH]);
  const y = scaleLinear([Math.min(15, ...warm), Math.max(40, hottest)], [HEIGHT, 4]);
  const line = (values: readonly (number | null)[], place: (value: number) => number) =>
    values
      .flatMap((value, index) =>
        value === null ? [] : [`${x(curve.at_h[index] ?? 0).toFixed(1)} ${place(value).toFixed(1)}`],
      )
      .join("L");
  const cure = scaleLinear([0, 1], [HEIGHT, 4]);
  return (
    <Box marginTop="1">
      <Flex justify="space-between" align="baseline" fontSize="14px">
        <Box fontWeight={700}>
          touched, {lengthText(curve.x_mm, units)} in, {lengthText(curve.depth_mm, units)} deep
        </Box>
        <Word
          fontSize="14px"
          onClick={() => {
            touch(null);
          }}
        >
          away
        </Word>
      </Flex>
      <svg
        width={WIDTH}
        height={HEIGHT + 2}
        role="img"
        aria-label={`Temperature of the touched place: ${temperatureText(hottest, units)} at its hottest`}
      >
        <rect width={WIDTH} height={HEIGHT} fill="var(--plot)" stroke="var(--hair)" />
        <path d={`M${line(curve.degree_of_cure, cure)}`} fill="none" stroke="var(--set)" strokeWidth={1.6} />
        <path d={`M${line(curve.temperature_c, y)}`} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <path d={`M${x(at_h)} 0V${HEIGHT}`} stroke="var(--depth)" strokeWidth={1} />
        <text x={4} y={15} fontSize={13} fill="var(--ink)">
          {temperatureFigure(hottest, units)} at most
        </text>
        <text x={WIDTH - 4} y={15} fontSize={13} textAnchor="end" fill="var(--set)">
          cure
        </text>
      </svg>
    </Box>
  );
}
