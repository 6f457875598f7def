import { Box, Flex } from "@chakra-ui/react";

import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { HabitsFields } from "../../desk/habits";
import { Caution } from "../../ui/caution";
import { Row, Title } from "../../ui/row";
import { areaText, hoursText, lengthText, volumeText } from "../../units/display";

const SHARES = [
  ["stirring_fraction", "stirring"],
  ["bed_fraction", "the bed"],
  ["figures_fraction", "figures"],
] as const;

/** Bubbles that would be seen in the chosen pour: how many, from where, and what would help most. */
export function Clarity() {
  const { scene, keep, outcome, units } = useDocument();
  const { pourNumber } = useChoice();
  const told = outcome.clarity.find((one) => one.pour_number === pourNumber);
  if (!told) return null;
  const habits = scene.brief.habits ?? {};
  const most = Math.max(told.seen_count, 1e-9);
  return (
    <Box role="group" aria-label="Bubbles">
      <Title>Bubbles once it is set</Title>
      <Box as="dl" margin="0">
        <Row label="seen" known="seen">
          {told.words}
        </Row>
        <Row label="leave from its foot" known="smallest_out">
          {told.smallest_mm === null ? "none" : `over ${lengthText(told.smallest_mm, units, 2)}`}
        </Row>
        {told.seen_count > 0.05
          ? SHARES.filter(([part]) => told[part] > 0.005).map(([part, word]) => (
              <Row key={part} label={`from ${word}`}>
                {Math.round(told[part] * 100)} %
              </Row>
            ))
          : null}
        {told.trapped_ml >= 0.05 ? (
          <Row label="besides: air that stays">{volumeText(told.trapped_ml, units)}</Row>
        ) : null}
        {told.undersides_cm2 >= 0.1 ? (
          <Row label="flat undersides, a film of small ones">{areaText(told.undersides_cm2, units, 1)}</Row>
        ) : null}
      </Box>
      {told.helps.length > 0 && told.seen_count > 0.05 ? (
        <>
          <Box fontWeight={800} marginTop="3">
            What would help most
          </Box>
          <Box as="ul" listStyleType="none">
            {told.helps.map((help) => (
              <Box as="li" key={help.words} paddingY="3px" lineHeight="1.25">
                <Flex justify="space-between" gap="3">
                  <span>{help.words}</span>
                  <Box as="span" fontWeight={700} whiteSpace="nowrap">
                    −{Math.round(100 * (1 - help.seen_count / most))} %
                  </Box>
                </Flex>
                <Box height="4px" bg="wash" aria-hidden="true">
                  <Box height="4px" bg="set" style={{ width: `${100 * (1 - help.seen_count / most)}%` }} />
                </Box>
              </Box>
            ))}
          </Box>
          <Box fontSize="14px" color="soft" marginTop="1">
            A warmer mix is thinner and cures as much sooner: it lets hardly more out. Warm part A alone, before B.
          </Box>
        </>
      ) : null}
      <Box fontWeight={800} marginTop="3">
        Flame or heat gun
      </Box>
      <Box as="dl" margin="0">
        <Row label="pass it quickly">
          {told.flame.passes_min.length > 0
            ? `${told.flame.passes_min.join(", ")} min after`
            : "not at all: it skins too soon"}
        </Row>
        <Row label="then only wrinkles">
          {told.flame.until_min === null ? "not while told" : `from ${hoursText(told.flame.until_min / 60)}`}
        </Row>
        <Row label={`${lengthText(0.2, units, 1)} reach the top`}>
          {told.flame.rises_min === null ? "never" : `after ${hoursText(told.flame.rises_min / 60)}`}
        </Row>
      </Box>
      <Caution>Never near alcohol, solvent, foliage or a thin plastic dam; keep it moving.</Caution>
      <Box fontWeight={800} marginTop="3">
        How it is mixed
      </Box>
      <HabitsFields
        habits={habits}
        take={(next) => {
          keep({ ...scene, brief: { ...scene.brief, habits: next } }, "how it is mixed");
        }}
      />
      {habits.vacuum || (habits.pot_bar ?? 0) > 0 ? (
        <Caution>
          Vacuum on the mixed cup only, never on the filled dam. A pressure vessel has to be rated and to have a relief
          valve; hollow prints and foam are crushed in it.
        </Caution>
      ) : null}
    </Box>
  );
}
