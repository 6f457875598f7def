import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";

import type { Figure, FigureFacts } from "../../api/types";
import { Colour } from "../../ui/colour";
import { Parts } from "../../ui/parts";
import { Pill } from "../../ui/pill";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { Sources } from "../../ui/sources";
import { forceText, lengthText, massText, temperatureText, volumeText } from "../../units/display";
import { LengthField, MassField, NumberField, TemperatureField } from "../../desk/fields";
import { optionsOf, solidsFor, useShelf } from "../../desk/shelf";
import { withFigure } from "../../desk/edits";
import { AddFigure } from "./add-figure";
import { AirHelp } from "./air-help";
import { BEHAVES } from "../../words/outcome";
import { Holding } from "./holding";
import { Measures } from "./measures";
import { Schools } from "./schools";

/** How far a shoal is spread about its first fish. */
const SHOAL_MM = 16;

export function FiguresInspector() {
  const desk = useDocument();
  const choice = useChoice();
  const { scene, keep, change, outcome, units } = desk;
  const shelf = useShelf();
  const figures = scene.figures ?? [];
  const figure = figures.find((one) => one.id === choice.figureId) ?? figures[0];
  if (!figure) {
    return (
      <>
        <Title>No figures yet</Title>
        <AddFigure />
      </>
    );
  }
  const sight = outcome.sights.find((one) => one.figure_id === figure.id);
  const fact = outcome.figures.find((one) => one.figure_id === figure.id);
  const set = (change: Partial<Figure>, note: string) => {
    keep(withFigure(scene, figure.id, change), `${note} ${figure.name}`.slice(0, 100));
  };
  const move = (change: Partial<Figure["place"]>) => {
    set({ place: { ...figure.place, ...change } }, "moved");
  };
  const fill = scene.tank.fill_height_mm;
  return (
    <>
      <Choice
        label="figure"
        value={figure.id}
        options={figures.map((one) => [one.id, one.name] as const)}
        take={(id) => {
          choice.chooseFigure(id);
        }}
      />
      <Title aside={figure.material.name}>{figure.name}</Title>
      <Parts
        label="the figure"
        parts={[
          {
            word: "place",
            part: (
              <>
                {fact ? <Afloat fact={fact} /> : null}
                <LengthField
                  label="from the left"
                  value={figure.place.x_mm}
                  take={(x_mm) => {
                    move({ x_mm });
                  }}
                />
                <LengthField
                  label="behind the glass"
                  value={figure.place.behind_mm}
                  take={(behind_mm) => {
                    move({ behind_mm });
                  }}
                />
                <LengthField
                  label="depth of its foot"
                  value={fill - figure.place.height_mm}
                  take={(depth) => {
                    move({ height_mm: fill - depth });
                  }}
                />
                <NumberField
                  label="turned"
                  unit="°"
                  value={figure.turn_deg ?? 0}
                  take={(turn_deg) => {
                    set({ turn_deg }, "turned");
                  }}
                />
                <NumberField
                  label="nose up"
                  unit="°"
                  value={figure.tilt_deg ?? 0}
                  take={(tilt_deg) => {
                    set({ tilt_deg }, "tilted");
                  }}
                />
                <NumberField
                  label="rolled"
                  unit="°"
                  value={figure.roll_deg ?? 0}
                  take={(roll_deg) => {
                    set({ roll_deg }, "rolled");
                  }}
                />
                <Flex gap="1" wrap="wrap" marginY="2">
                  <Pill
                    disabled={fact?.rests_mm === null || figure.locked === true}
                    onClick={() => {
                      move({ height_mm: fact?.rests_mm ?? figure.place.height_mm });
                    }}
                  >
                    drop to the bed
                  </Pill>
                  <Pill
                    onClick={() => {
                      change({ kind: "shoal", figure_id: figure.id, count: 4, spread_mm: SHOAL_MM });
                    }}
                  >
                    copy as shoal
                  </Pill>
                  <Pill
                    onClick={() => {
                      set({ locked: !figure.locked }, figure.locked ? "unlocked" : "locked");
                    }}
                  >
                    {figure.locked ? "unlock" : "lock"}
                  </Pill>
                  <Pill
                    onClick={() => {
                      change({ kind: "take_figure_out", figure_id: figure.id });
                    }}
                  >
                    take out
                  </Pill>
                </Flex>
                {sight ? (
                  <Box as="dl" margin="0">
                    <Row label="stands at">
                      {lengthText(sight.top_depth_mm, units)} to {lengthText(sight.bottom_depth_mm, units)}
                    </Row>
                    <Row label="contrast left" known="contrast">
                      {Math.round(sight.contrast_fraction * 100)} %
                    </Row>
                    <Row label="against the back" known="behind" hint="colour difference; below 3 it is lost">
                      {sight.difference_de00.toFixed(1)}
                    </Row>
                    {fact?.peak_c === null || fact?.peak_c === undefined ? null : (
                      <Row label="hottest beside it">{temperatureText(fact.peak_c, units)}</Row>
                    )}
                  </Box>
                ) : null}
              </>
            ),
          },
          {
            word: "holding",
            part: (
              <>
                <Holding figure={figure} set={set} />
                <AirHelp figure={figure} set={set} />
                <Sources>
                  {[
                    ["floats", "(density of the resin x volume - mass) x g, at its worst moment of all pours"],
                    [
                      "holds",
                      "three times the load, five times near softening; stiffness and strength are typical values (assumed)",
                    ],
                    [
                      "air",
                      "flood over fine columns: air is trapped where no path as high leads to the open top; pinholes are not seen",
                    ],
                    ["hollow", "its wall taken off all round, exact for round and box-like bodies"],
                  ]}
                </Sources>
              </>
            ),
          },
          {
            word: "made of",
            part: (
              <>
                <Measures figure={figure} set={set} />
                <Choice
                  label="made of"
                  value={figure.material.id}
                  options={optionsOf(solidsFor(shelf, "figure"), figure.material)}
                  take={(id) => {
                    const material = shelf?.solids.find((one) => one.id === id);
                    if (material) set({ material }, "material of");
                  }}
                />
                <MassField
                  label="weighed"
                  value={figure.mass_g ?? fact?.mass_g ?? 0}
                  take={(g) => {
                    set({ mass_g: g > 0 ? g : null }, "weighed");
                  }}
                />
                <Tick
                  label="hollow"
                  value={figure.hollow !== null && figure.hollow !== undefined}
                  take={(hollow) => {
                    set({ hollow: hollow ? { wall_mm: 1.2, vented: false } : null }, hollow ? "hollow" : "solid");
                  }}
                />
                {figure.hollow ? (
                  <>
                    <LengthField
                      label="its wall"
                      value={figure.hollow.wall_mm}
                      take={(wall_mm) => {
                        set({ hollow: { wall_mm, vented: figure.hollow?.vented ?? false } }, "wall of");
                      }}
                    />
                    <Tick
                      label="vented, resin runs in"
                      value={figure.hollow.vented ?? false}
                      take={(vented) => {
                        set({ hollow: { wall_mm: figure.hollow?.wall_mm ?? 1.2, vented } }, "vent of");
                      }}
                    />
                  </>
                ) : null}
                <Colour
                  label="painted"
                  value={figure.paint_srgb}
                  take={(paint_srgb) => {
                    set({ paint_srgb }, "colour of");
                  }}
                />
                <Extras figure={figure} set={set} />
              </>
            ),
          },
          { word: "add", part: <AddFigure /> },
          { word: "schools", part: <Schools /> },
        ]}
      />
    </>
  );
}

function Afloat({ fact }: { fact: FigureFacts }) {
  const { units } = useDocument();
  const near = Math.abs(fact.lift_gf) < 0.005;
  return (
    <Box as="dl" margin="0" marginBottom="1">
      <Row known="floats" label={BEHAVES[fact.behaves]}>
        {near ? "no force" : `${fact.lift_gf > 0 ? "up" : "down"} ${forceText(Math.abs(fact.lift_gf), units)}`}
      </Row>
      <Row label="volume, mass">
        {volumeText(fact.volume_ml, units, fact.volume_ml < 10 ? 2 : 1)}
        {fact.volume_spread_ml > 0 ? ` ± ${volumeText(fact.volume_spread_ml, units, 1)}` : ""},{" "}
        {massText(fact.mass_g, units)}
      </Row>
      {fact.ballast_g === null ? null : <Row label="lead to make it sink">{massText(fact.ballast_g, units)}</Row>}
      {fact.above_ml > 0.01 ? <Row label="above the fill line">{volumeText(fact.above_ml, units, 2)}</Row> : null}
    </Box>
  );
}

const LAMP = { limit_c: 80, wire_to: "bed" as const, tested: false };

function Extras({ figure, set }: { figure: Figure; set: (change: Partial<Figure>, note: string) => void }) {
  return (
    <Box marginTop="2">
      <Tick
        label="cut at the line, add later"
        value={figure.cut_at_fill ?? false}
        take={(cut_at_fill) => {
          set({ cut_at_fill }, "cut");
        }}
      />
      <Tick
        label="stays removable, in a liner"
        value={figure.liner !== null && figure.liner !== undefined}
        take={(on) => {
          set({ liner: on ? { gap_mm: 0.4, draft_deg: 2 } : null }, "liner of");
        }}
      />
      {figure.liner ? (
        <>
          <LengthField
            label="gap of the liner"
            value={figure.liner.gap_mm}
            take={(gap_mm) => {
              set({ liner: { gap_mm, draft_deg: figure.liner?.draft_deg ?? 2 } }, "liner of");
            }}
          />
          <NumberField
            label="draft"
            unit="°"
            value={figure.liner.draft_deg ?? 2}
            take={(draft_deg) => {
              set({ liner: { gap_mm: figure.liner?.gap_mm ?? 0.4, draft_deg } }, "draft of");
            }}
          />
        </>
      ) : null}
      <Tick
        label="is a lamp"
        value={figure.lamp !== null && figure.lamp !== undefined}
        take={(on) => {
          set({ lamp: on ? LAMP : null }, "lamp");
        }}
      />
      {figure.lamp ? (
        <>
          <TemperatureField
            label="lamp stands"
            value={figure.lamp.limit_c ?? 80}
            take={(limit_c) => {
              set({ lamp: { ...LAMP, ...figure.lamp, limit_c } }, "lamp");
            }}
          />
          <Choice
            label="wire leaves by"
            value={figure.lamp.wire_to ?? "bed"}
            options={[
              ["bed", "the bed"],
              ["back", "the back"],
              ["side", "the side"],
              ["above", "above"],
            ]}
            take={(wire) => {
              set({ lamp: { ...LAMP, ...figure.lamp, wire_to: wire as "bed" } }, "wire of");
            }}
          />
          <Tick
            label="tested, it lights"
            value={figure.lamp.tested ?? false}
            take={(tested) => {
              set({ lamp: { ...LAMP, ...figure.lamp, tested } }, "test of");
            }}
          />
        </>
      ) : null}
    </Box>
  );
}
