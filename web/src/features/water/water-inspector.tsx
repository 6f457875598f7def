import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";

import { api } from "../../api/client";
import { saveBlob } from "../../api/download";
import type { Scene } from "../../api/types";
import { Colour } from "../../ui/colour";
import { Parts } from "../../ui/parts";
import { Pill, Word } from "../../ui/pill";
import { Choice, Row, Title } from "../../ui/row";
import { Sources } from "../../ui/sources";
import { lengthText } from "../../units/display";
import { LengthField, NumberField } from "../../desk/fields";
import { useShelf } from "../../desk/shelf";
import { withPour } from "../../desk/edits";
import { Doses } from "./doses";
import { Paint } from "./paint";
import { Spectrum } from "./spectrum";
import { WishFor } from "./wish";

const LIGHTS = [
  ["lamp_above", "lamp above"],
  ["room", "all round the room"],
  ["mixed", "lamp and room"],
  ["lit_from_behind", "from behind"],
] as const;
const SIDES = [
  ["polished", "polished"],
  ["sanded", "sanded"],
  ["painted_white", "painted white"],
] as const;
const AROUND = [
  ["#f4f1ea", "white wall"],
  ["#8f8f8a", "grey wall"],
  ["#1d1f22", "dark cabinet"],
] as const;

/** The piece as computed, 1600 pixels wide, as a PNG. */
function KeepPicture() {
  const { scene } = useDocument();
  const save = async (view: "front" | "side" | "above") => {
    const { data } = await api.POST("/api/picture", {
      params: { query: { view, width: 1600 } },
      body: scene,
      parseAs: "blob",
    });
    if (data) saveBlob(data as Blob, `${scene.name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}-${view}.png`);
  };
  return (
    <Flex gap="1" align="baseline" marginTop="1" fontSize="14px" color="soft">
      keep the picture
      {(["front", "side", "above"] as const).map((view) => (
        <Word key={view} fontSize="14px" textDecoration="underline" onClick={() => void save(view)}>
          {view}
        </Word>
      ))}
    </Flex>
  );
}

export function WaterInspector() {
  const desk = useDocument();
  const choice = useChoice();
  const { scene, keep, outcome, units } = desk;
  const { pourNumber } = choice;
  const shelf = useShelf();
  const pour = scene.pours[pourNumber - 1];
  const held = scene.colourants ?? [];
  const others = shelf?.colourants.filter((one) => !held.some((each) => each.id === one.id)) ?? [];
  const doses = pour?.doses ?? [];
  const brief = (change: Partial<Scene["brief"]>, note: string) => {
    keep({ ...scene, brief: { ...scene.brief, ...change } }, note);
  };
  const dose = (id: string, drops: number) => {
    const rest = doses.filter((one) => one.colourant_id !== id);
    const all = drops === 0 ? rest : [...rest, { colourant_id: id, dose_drops_per_100g: drops }];
    const order = held.map((one) => one.id);
    all.sort((a, b) => order.indexOf(a.colourant_id) - order.indexOf(b.colourant_id));
    keep(withPour(scene, pourNumber, { doses: all }), `dose of pour ${pourNumber}`);
  };
  const backdrop = scene.brief.backdrop_srgb ?? "#f4f1ea";
  return (
    <Parts
      label="the water"
      parts={[
        {
          word: "doses",
          part: (
            <>
              <Title aside="drops per 100 g">Pour {pourNumber}</Title>
              <Flex gap="1" wrap="wrap" marginBottom="1">
                {scene.pours.map((one, index) => (
                  <Word
                    key={one.id}
                    fontSize="14px"
                    aria-pressed={pourNumber === index + 1}
                    fontWeight={pourNumber === index + 1 ? 800 : 400}
                    onClick={() => {
                      choice.choosePour(index + 1);
                    }}
                  >
                    pour {index + 1}
                  </Word>
                ))}
              </Flex>
              {held.map((ink) => (
                <NumberField
                  key={ink.id}
                  label={ink.name}
                  value={doses.find((one) => one.colourant_id === ink.id)?.dose_drops_per_100g ?? 0}
                  take={(drops) => {
                    dose(ink.id, drops);
                  }}
                />
              ))}
              <Pill
                marginTop="1"
                onClick={() => {
                  keep(
                    { ...scene, pours: scene.pours.map((one) => ({ ...one, doses })) },
                    "the same dose in all pours",
                  );
                }}
              >
                the same in every pour
              </Pill>
              {others.length ? (
                <Box marginTop="3">
                  <Box color="soft" fontSize="14px">
                    take another from the shelf
                  </Box>
                  {others.map((ink) => (
                    <Word
                      key={ink.id}
                      title={ink.note}
                      onClick={() => {
                        keep({ ...scene, colourants: [...held, ink] }, `took ${ink.name}`);
                      }}
                    >
                      {ink.name}
                      {ink.modelled ? "" : " (not modelled)"}
                    </Word>
                  ))}
                </Box>
              ) : null}
            </>
          ),
        },
        { word: "measured", part: <Doses /> },
        { word: "wish", part: <WishFor /> },
        {
          word: "light",
          part: (
            <>
              <Choice
                label="comes"
                value={scene.brief.light ?? "lamp_above"}
                options={LIGHTS}
                take={(light) => {
                  brief({ light: light as "room" }, "light");
                }}
              />
              <Box fontSize="14px" color="soft" lineHeight="1.25" paddingY="1">
                {outcome.water.light_words}
              </Box>
              <Choice
                label="stands before"
                value={AROUND.some(([code]) => code === backdrop) ? backdrop : ""}
                options={[...AROUND, ["", "own colour"]]}
                take={(code) => {
                  if (code) brief({ backdrop_srgb: code }, "surroundings");
                }}
              />
              <Colour
                label="behind the tank"
                value={backdrop}
                take={(backdrop_srgb) => {
                  brief({ backdrop_srgb }, "backdrop");
                }}
              />
              <Choice
                label="side faces"
                value={scene.brief.sides ?? "polished"}
                options={SIDES}
                take={(sides) => {
                  brief({ sides: sides as "sanded" }, "side faces");
                }}
              />
              <LengthField
                label="seen from"
                value={scene.brief.viewing_mm ?? 400}
                take={(viewing_mm) => {
                  brief({ viewing_mm }, "viewing distance");
                }}
              />
              <NumberField
                label="on display for"
                unit="years"
                value={scene.brief.display_years ?? 0}
                take={(display_years) => {
                  brief({ display_years }, "years on display");
                }}
              />
              <Box fontSize="14px" color="soft" lineHeight="1.25" paddingY="1">
                {outcome.water.resin_words}
              </Box>
              <KeepPicture />
              <Sources>
                {[
                  [
                    "light",
                    "Beer's law in 31 bands of light; from above over a mean path of 1.13, shares of light from above, front and back by preset (chosen by eye against a path tracer)",
                  ],
                  [
                    "own tint",
                    "a generic yellow by class of resin, anchored on the colour scale of clear liquids, and what it gains in a year of room light (assumed)",
                  ],
                  [
                    "haze",
                    "pastes and white scatter: two streams of light by thin slabs, with what leaks through bare sides",
                  ],
                  [
                    "steps",
                    "CIEDE2000 across a line, on the back wall: below 1 invisible, to 2 searched for, to 4 seen, above a band; a soft join hides more",
                  ],
                  [
                    "scale-true",
                    "diffuse attenuation of natural water types (from memory, shape checked) times the scale",
                  ],
                  ["colourants", "made-up generic spectra: calibrate with a swatch of your own bottle"],
                ]}
              </Sources>
            </>
          ),
        },
        {
          word: "lines",
          part: (
            <>
              <LengthField
                label="joins soft over"
                value={scene.brief.feather_mm ?? 0}
                take={(feather_mm) => {
                  brief({ feather_mm }, "soft joins");
                }}
              />
              <Box as="dl" margin="0">
                {outcome.pours.map((one) =>
                  one.joint.seam ? (
                    <Row key={one.id} label={`at ${lengthText(one.joint.seam.depth_mm, units)}`}>
                      {one.joint.seam.seam_de00.toFixed(1)}, {one.joint.seam.words}
                    </Row>
                  ) : null,
                )}
              </Box>
            </>
          ),
        },
        { word: "paint", part: <Paint /> },
        { word: "own ink", part: <Spectrum /> },
      ]}
    />
  );
}
