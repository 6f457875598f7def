import { Box } from "@chakra-ui/react";

import { Row, Title } from "../../ui/row";
import { lengthText } from "../../units/display";
import { useDesk, withFigure } from "../workspace";
import { Caution, Colour } from "./build";
import { LengthField, NumberField } from "./fields";

export function FiguresInspector() {
  const desk = useDesk();
  const { scene, keep, outcome, units } = desk;
  const figure = scene.figures?.find((one) => one.id === desk.figureId) ?? scene.figures?.[0];
  if (!figure) return <Title>No figures yet</Title>;
  const sight = outcome.sights.find((one) => one.figure_id === figure.id);
  const move = (change: Partial<typeof figure.place>) => {
    keep(withFigure(scene, figure.id, { place: { ...figure.place, ...change } }), `moved ${figure.name}`);
  };
  const fill = scene.tank.fill_height_mm;
  return (
    <>
      <Title aside={figure.material.name}>{figure.name}</Title>
      <LengthField label="from the left" value={figure.place.x_mm} take={(x_mm) => { move({ x_mm }); }} />
      <LengthField label="behind the glass" value={figure.place.behind_mm} take={(behind_mm) => { move({ behind_mm }); }} />
      <LengthField label="depth" value={fill - figure.place.height_mm} take={(depth) => { move({ height_mm: fill - depth }); }} />
      <NumberField label="turned by" unit="°" value={figure.turn_deg ?? 0} take={(turn_deg) => { keep(withFigure(scene, figure.id, { turn_deg }), `turned ${figure.name}`); }} />
      <Colour label="painted" value={figure.paint_srgb} take={(paint_srgb) => { keep(withFigure(scene, figure.id, { paint_srgb }), `colour of ${figure.name}`); }} />
      {sight ? (
        <Box as="dl" margin="0">
          <Row label="stands at">{lengthText(sight.top_depth_mm, units)} to {lengthText(sight.bottom_depth_mm, units)}</Row>
          <Row label="contrast left">{Math.round(sight.contrast_fraction * 100)} %</Row>
          <Row label="against the back" hint="colour difference; below 3 it is lost">{sight.difference_de00.toFixed(1)}</Row>
          <Row label="reads as">
            <svg width="22" height="12" aria-hidden="true" style={{ display: "inline" }}><rect width="22" height="12" fill={sight.reads_srgb} /></svg> {sight.reads_srgb}
          </Row>
        </Box>
      ) : null}
      <Box height="4" />
      <Title>All figures</Title>
      <Box as="ul" listStyleType="none" padding="0" margin="0">
        {scene.figures?.map((one) => (
          <li key={one.id}>
            <Box asChild fontWeight={one.id === figure.id ? 800 : 400} cursor="pointer" minHeight="24px" width="100%" textAlign="left">
              <button type="button" onClick={() => { desk.chooseFigure(one.id); }}>{one.name}</button>
            </Box>
          </li>
        ))}
      </Box>
      <Caution>Drag a figure in the section or in the plan. Test lamps and their wires before they are buried: they cannot be reached afterwards.</Caution>
    </>
  );
}
