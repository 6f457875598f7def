import { Box } from "@chakra-ui/react";

import type { Scene } from "../../api/types";
import { Choice, Row, Title } from "../../ui/row";
import { Colour } from "../../ui/colour";
import { Word } from "../../ui/pill";
import { Sources } from "../../ui/sources";
import { lengthText, massText } from "../../units/display";
import { useDesk, withPour } from "../workspace";
import { NumberField, useShelf } from "../fields";

const LIGHTS = [["lamp_above", "lamp above"], ["room", "all round the room"], ["lit_from_behind", "from behind"]] as const;

export function WaterInspector() {
  const desk = useDesk();
  const { scene, keep, outcome, pourNumber, units } = desk;
  const shelf = useShelf();
  const pour = scene.pours[pourNumber - 1];
  const held = scene.colourants ?? [];
  const others = shelf?.colourants.filter((one) => !held.some((each) => each.id === one.id)) ?? [];
  const doses = pour?.doses ?? [];
  const brief = (change: Partial<Scene["brief"]>, note: string) => { keep({ ...scene, brief: { ...scene.brief, ...change } }, note); };
  const dose = (id: string, drops: number) => {
    const rest = doses.filter((one) => one.colourant_id !== id);
    const all = drops > 0 ? [...rest, { colourant_id: id, dose_drops_per_100g: drops }] : rest;
    const order = held.map((one) => one.id);
    all.sort((a, b) => order.indexOf(a.colourant_id) - order.indexOf(b.colourant_id));
    keep(withPour(scene, pourNumber, { doses: all }), `dose of pour ${pourNumber}`);
  };
  return (
    <>
      <Title>Light</Title>
      <Choice label="comes" value={scene.brief.light ?? "lamp_above"} options={LIGHTS} take={(light) => { brief({ light: light as "room" }, "light"); }} />
      <Colour label="behind the tank" value={scene.brief.backdrop_srgb ?? "#f4f1ea"} take={(backdrop_srgb) => { brief({ backdrop_srgb }, "backdrop"); }} />
      <Box height="4" />
      <Title aside="drops per 100 g">Pour {pourNumber}</Title>
      {held.map((ink) => (
        <NumberField key={ink.id} label={ink.name} value={doses.find((one) => one.colourant_id === ink.id)?.dose_drops_per_100g ?? 0} take={(drops) => { dose(ink.id, drops); }} />
      ))}
      {others.length ? (
        <Box marginTop="2">
          <Box color="soft" fontSize="14px">take another from the shelf</Box>
          {others.map((ink) => (
            <Word key={ink.id} onClick={() => { keep({ ...scene, colourants: [...held, ink] }, `took ${ink.name}`); }}>{ink.name}</Word>
          ))}
        </Box>
      ) : null}
      <Box as="dl" margin="0" marginTop="2">
        {outcome.pours[pourNumber - 1]?.doses.map((one) => (
          <Row key={one.colourant_id} label={one.name}>{one.drops} drops, {massText(one.mass_g, units)}</Row>
        ))}
      </Box>
      <Box height="4" />
      <Title>Layer lines</Title>
      <Box as="dl" margin="0">
        {outcome.pours.map((one) => (one.seam ? <Row key={one.id} label={`at ${lengthText(one.seam.depth_mm, units)}`}>{one.seam.seam_de00.toFixed(1)}, {one.seam.seen}</Row> : null))}
      </Box>
      <Sources>
        {[
          ["light", "what is left after the ink above and before it, in 31 bands of colour (Beer-Lambert)"],
          ["inks", "generic spectra, made up; calibrate with a swatch of your own bottle"],
          ["lines", "CIEDE2000 between both sides of a line, against the back wall; under 1 invisible, to 2 searched for, to 4 seen"],
          ["sight", "share of a figure's contrast in clear resin; below a difference of 3 it is lost"],
        ]}
      </Sources>
    </>
  );
}
