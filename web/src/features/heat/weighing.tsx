import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { MassField } from "../../desk/fields";
import { Caution } from "../../ui/caution";
import { Row } from "../../ui/row";
import { weighedText } from "../../units/display";

/** An error of the ratio from which a cup is not to be poured. */
const STOP = 0.05;

/** The chosen pour's cup at the scale: what it is to show, and what to do when too much of a part was poured. */
export function Weighing() {
  const { scene, outcome, units } = useDocument();
  const { pourNumber } = useChoice();
  const [poured, pourIn] = useState<{ a: number; b: number } | null>(null);
  const pour = scene.pours[pourNumber - 1];
  const mix = outcome.pours[pourNumber - 1]?.cup.mix;
  const resin = scene.resins.find((one) => one.id === pour?.resin_id);
  const wanted_g = mix ? Math.round((mix.cup_part_a_g + mix.cup_part_b_g) * 10) / 10 : 0;
  const scale_step_g = scene.brief.habits?.scale_step_g ?? 0.1;
  const { data, error } = useQuery({
    queryKey: ["weigh", resin, wanted_g, pour?.mix_c, scale_step_g, poured, units],
    enabled: resin !== undefined && !resin.light && wanted_g > 0,
    staleTime: Infinity,
    retry: false,
    placeholderData: (before) => before,
    queryFn: async () => {
      if (!resin || !pour) throw new Error("no resin");
      const body = { resin, wanted_g, mix_c: pour.mix_c, scale_step_g, part_a_g: poured?.a, part_b_g: poured?.b };
      return ask(api.POST("/api/cup/weigh", { body }));
    },
  });
  if (!data) return null;
  const { weighed, correction } = data;
  const now = poured ?? { a: weighed.part_a_g, b: weighed.part_b_g };
  const off = (100 * weighed.error_fraction).toFixed(2);
  return (
    <Box marginTop="3" role="group" aria-label="At the scale">
      <Box fontWeight={800}>At the scale</Box>
      <Box as="dl" margin="0">
        <Row label="part A">{weighedText(weighed.part_a_g, units)}</Row>
        <Row label="part B, by the rounded A">{weighedText(weighed.part_b_g, units)}</Row>
        <Row label="ratio off by the step">{`${off} %`}</Row>
      </Box>
      <Box marginTop="2">Poured too much? Say what the scale shows.</Box>
      <MassField
        label="poured of A"
        value={now.a}
        take={(a) => {
          pourIn({ a, b: now.b });
        }}
      />
      <MassField
        label="poured of B (0: not yet)"
        value={now.b}
        take={(b) => {
          pourIn({ a: now.a, b });
        }}
      />
      {error ? <Box role="alert">{error.message}</Box> : null}
      {correction ? (
        <Box marginTop="1" lineHeight="1.3" role="status">
          <b>{correction.do_words}</b>{" "}
          <Box as="span" color={Math.abs(correction.error_fraction) >= STOP ? "caution" : "soft"}>
            {correction.left_words}
          </Box>
        </Box>
      ) : null}
      <Caution>Gloves and fresh air; never scoop out of what is mixed. The maker&apos;s data sheet rules.</Caution>
    </Box>
  );
}
