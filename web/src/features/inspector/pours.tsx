import { Box, Flex } from "@chakra-ui/react";

import { Pill } from "../../ui/pill";
import { Choice, Row, Title } from "../../ui/row";
import { Sources } from "../../ui/sources";
import { hoursText, lengthText, temperatureFigure, volumeText, weighedText } from "../../units/display";
import { HoursField, LengthField, optionsOf, TemperatureField } from "../fields";
import { splitPour, useDesk, withLine, withoutPour, withPour } from "../workspace";
import { FineCheck } from "./fine-check";

export function PoursInspector() {
  const desk = useDesk();
  const { scene, keep, outcome, units, pourNumber } = desk;
  const pour = scene.pours[pourNumber - 1];
  const told = outcome.pours[pourNumber - 1];
  if (!pour || !told) return <Title>Pour {pourNumber}</Title>;
  const resin = scene.resins.find((one) => one.id === pour.resin_id) ?? { id: pour.resin_id, name: pour.resin_id };
  const { cure, mix, peak_band } = told;
  const degree = units.temperature === "f" ? "°F" : "°C";
  return (
    <>
      <Title aside={`${lengthText(told.top_depth_mm, units)} to ${lengthText(told.bottom_depth_mm, units)}`}>Pour {pourNumber}</Title>
      <Choice label="resin" value={pour.resin_id} options={optionsOf(scene.resins, resin)} take={(resin_id) => { keep(withPour(scene, pourNumber, { resin_id }), `resin of pour ${pourNumber}`); }} />
      {pourNumber < scene.pours.length ? (
        <LengthField label="line at" value={pour.top_depth_mm} take={(mm) => { keep(withLine(scene, pourNumber, mm), `line of pour ${pourNumber}`); }} />
      ) : null}
      <TemperatureField label="mix at" value={pour.mix_c} take={(mix_c) => { keep(withPour(scene, pourNumber, { mix_c }), `mix of pour ${pourNumber}`); }} />
      {pourNumber > 1 ? <HoursField label={`after pour ${pourNumber - 1}`} value={pour.wait_h} take={(wait_h) => { keep(withPour(scene, pourNumber, { wait_h }), `wait before pour ${pourNumber}`); }} /> : null}
      <Box as="dl" margin="0">
        <Row label="deep">{lengthText(told.depth_mm, units, 1)}</Row>
        <Row label="volume">{volumeText(told.resin_volume_ml, units)}</Row>
        <Row label="and for cups and walls" hint="films in the cups; with the last pour, the climb at the walls">{volumeText(told.allowance_ml, units)}</Row>
        <Row label="part A" hint={told.ratio_words}>{weighedText(mix.part_a_g, units)}</Row>
        <Row label="part B" hint={told.ratio_words}>{weighedText(mix.part_b_g, units)}</Row>
        <Row label="in">{mix.cups_count === 1 ? "1 cup" : `${mix.cups_count} cups`}</Row>
        {cure ? (
          <>
            <Row label="peak" hint="draft march; the range is for room, rate and heat of the resin at both ends">
              {temperatureFigure(cure.peak_c, units)} {degree}{peak_band ? <Box as="span" color="soft" fontWeight={400}> {temperatureFigure(peak_band.low_c, units)} to {temperatureFigure(peak_band.high_c, units)}</Box> : null}
            </Row>
            <Row label="hottest after">{hoursText(cure.peak_at_h)}</Row>
            <Row label="tack opens" hint="its last corner gels">{hoursText(cure.tack_opens_h)}</Row>
            <Row label="tack closes" hint="its last corner is no longer tacky">{hoursText(cure.tack_closes_h)}</Row>
            <Row label="hard">{hoursText(cure.hard_h)}</Row>
            <Row label="full cure">{hoursText(cure.full_cure_d * 24)}</Row>
          </>
        ) : null}
        <Row label="joint below">{told.joint}{told.seam ? `, step ${told.seam.seam_de00.toFixed(1)}` : ""}</Row>
      </Box>
      <Flex gap="2" marginTop="3" wrap="wrap">
        <Pill onClick={() => { keep(splitPour(scene, pourNumber), `split pour ${pourNumber}`); }}>split in two</Pill>
        <Pill disabled={scene.pours.length < 2} onClick={() => { keep(withoutPour(scene, pourNumber), `took pour ${pourNumber} out`); }}>take it out</Pill>
      </Flex>
      <FineCheck />
      <Sources>
        {[
          ["volume", "columns of 1 mm over bed and figures, exact in height; overlaps count once; what is reached, less the air that stays"],
          ["parts", `${told.ratio_words}, brought to mass by the densities of both parts`],
          ["peak", `heat and cure marched in three dimensions on ${outcome.march.cell_mm} mm cells, ${outcome.march.steps_count} steps; energy closes to ${outcome.march.imbalance_fraction}`],
          ["range", "room off by its spread, rate of cure by 10 %, heat of cure by 5 %, all low and all high (assumed)"],
          ["tack", "from the gel of the last corner (58 % cured) until its tack is gone (78 %)"],
          ["hard", "when the last corner is glassy at the mean room (assumed)"],
          ["resin", "a generic class fitted to label-like statements; your maker's data sheet comes first"],
        ]}
      </Sources>
    </>
  );
}
