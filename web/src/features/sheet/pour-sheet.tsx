import { Box, Flex, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";

import { ask } from "../../api/ask";
import { api, readIn } from "../../api/client";
import { otherText, partText } from "../../desk/measures";
import { ratioWords, resinOf } from "../../desk/names";
import type { BenchStep, Outcome, PourOutcome, Scene, Units } from "../../api/types";
import { Deed } from "../../ui/pill";
import {
  clockText,
  dayText,
  hoursText,
  lengthText,
  massText,
  temperatureText,
  volumeText,
  weighedText,
  whenText,
} from "../../units/display";

/** The pour sheet: what is followed at the bench, to print or to read. */
export function PourSheet() {
  const id = Number(useParams().sceneId);
  const both = useQuery({
    queryKey: ["sheet", id],
    staleTime: 0,
    gcTime: 0,
    queryFn: async () => {
      const state = await ask(api.GET("/api/scenes/{scene_id}", { params: { path: { scene_id: id } } }));
      const body = state.document;
      readIn(body.brief.units ?? {});
      const [outcome, steps] = await Promise.all([
        ask(api.POST("/api/evaluate", { body })),
        ask(api.POST("/api/bench/steps", { body })),
      ]);
      return { state, outcome, steps };
    },
  });
  if (both.error)
    return (
      <Box padding="12" role="alert">
        {both.error.message}
      </Box>
    );
  if (!both.data)
    return (
      <Box padding="12" color="soft">
        Writing the sheet ...
      </Box>
    );
  const { state, outcome, steps } = both.data;
  const scene = state.document;
  const units: Units = scene.brief.units ?? {};
  return (
    <Box as="main" maxWidth="860px" margin="0 auto" padding="28px 24px 60px">
      <Flex className="screen-only" justify="space-between" marginBottom="4">
        <Box asChild color="depth">
          <Link to={`/scenes/${id}/bench`}>back to the scene</Link>
        </Box>
        <Deed
          onClick={() => {
            window.print();
          }}
        >
          print
        </Deed>
      </Flex>
      <Flex
        justify="space-between"
        align="baseline"
        wrap="wrap"
        borderBottom="3px solid"
        borderColor="ink"
        paddingBottom="1"
      >
        <Heading as="h1" fontSize="30px" fontWeight={800}>
          {scene.name}
        </Heading>
        <Box fontStyle="italic" color="soft">
          pour sheet, 1:{scene.brief.scale}, revision {state.revision}
        </Box>
      </Flex>
      <Whole scene={scene} outcome={outcome} units={units} />
      <BeforeYouPour outcome={outcome} />
      <Bottles outcome={outcome} />
      {outcome.pours.map((pour) => (
        <PourBlock
          key={pour.id}
          pour={pour}
          steps={steps.filter((one) => one.pour_id === pour.id && !CUP_KINDS.has(one.kind))}
          scene={scene}
          units={units}
          last={pour.number === outcome.pours.length}
        />
      ))}
      <Box fontSize="14px" color="soft" marginTop="5">
        Computed on cells of {lengthText(outcome.march.cell_mm, units, 1)} with generic resin data. Peaks are ranges
        because room and resin vary; your maker&apos;s data sheet comes first.
      </Box>
    </Box>
  );
}

function Whole({ scene, outcome, units }: { scene: Scene; outcome: Outcome; units: Units }) {
  const facts = [
    ["resin in all", `${volumeText(outcome.whole.resin_volume_ml, units)}, ${weighedText(outcome.whole.mix_g, units)}`],
    [
      "tank inside",
      `${lengthText(scene.tank.inner_width_mm, units)} x ${lengthText(scene.tank.inner_behind_mm, units)}, fill ${lengthText(scene.tank.fill_height_mm, units)}`,
    ],
    [
      "room",
      `${temperatureText(scene.brief.room.day_c, units)} by day, ${temperatureText(scene.brief.room.night_c, units)} by night`,
    ],
    ["dam off", whenText(outcome.whole.demould_at)],
  ];
  return (
    <Flex as="dl" wrap="wrap" columnGap="10" rowGap="1" marginY="3">
      {facts.map(([word, value]) => (
        <Box key={word}>
          <Box as="dt" color="soft" fontSize="14px">
            {word}
          </Box>
          <Box as="dd" margin="0" fontWeight={700}>
            {value}
          </Box>
        </Box>
      ))}
    </Flex>
  );
}

function BeforeYouPour({ outcome }: { outcome: Outcome }) {
  const serious = outcome.flags.filter((flag) => flag.severity !== "note");
  return (
    <Box className="keep-whole" marginBottom="4">
      <Box borderLeft="4px solid" borderColor="caution" paddingLeft="3" marginBottom="3">
        <Box fontWeight={800}>Gloves, window, level table.</Box>
        Unset resin sensitises skin and lungs for life: nitrile gloves, ventilation, the maker&apos;s safety data sheet
        at hand. A large warm cup can smoke and burn: if it runs hot, spread it out in a shallow tray outdoors. No open
        flame near alcohol, solvent or foliage. Under a curing lamp: eye protection for its light, and never look into
        it.
      </Box>
      {serious.map((flag) => (
        <Box key={`${flag.code}${flag.pour_number ?? ""}${flag.figure_id ?? ""}`} fontSize="15px">
          <Box as="span" fontWeight={800} fontStyle="italic" color={flag.severity === "stop" ? "caution" : "watch"}>
            {flag.severity}{" "}
          </Box>
          <Box as="span" fontWeight={700}>
            {flag.title}.{" "}
          </Box>
          {flag.sentence}
        </Box>
      ))}
    </Box>
  );
}

/** The stocks that are made once. */
function Bottles({ outcome }: { outcome: Outcome }) {
  if (outcome.stocks.length === 0) return null;
  return (
    <Box className="keep-whole" marginBottom="4">
      <Box fontWeight={800}>One bottle of each colour, made first, for every pour</Box>
      {outcome.stocks.map((one) => (
        <Box key={one.colourant_id} borderBottom="1px solid" borderColor="wash">
          {one.words}
        </Box>
      ))}
    </Box>
  );
}

/** Steps whose amounts stand beside them, in the cups of the pour. */
const CUP_KINDS = new Set(["weigh_a", "colour", "weigh_b"]);

function PourBlock({
  pour,
  steps,
  scene,
  units,
  last,
}: {
  pour: PourOutcome;
  steps: BenchStep[];
  scene: Scene;
  units: Units;
  last: boolean;
}) {
  const resin = resinOf(scene, pour.resin_id);
  const { mix } = pour.cup;
  const cups = mix.cups_count;
  const stocks = pour.cup.measured.doses.some((one) => one.factor > 1);
  const next = last
    ? "dam off, see above"
    : pour.clock.tack_opens_at && pour.clock.tack_closes_at
      ? `next pour from ${dayText(pour.clock.tack_opens_at)}, ${clockText(pour.clock.tack_opens_at)} to ${dayText(pour.clock.tack_closes_at)}, ${clockText(pour.clock.tack_closes_at)}`
      : "no tack window in this room";
  return (
    <Box
      as="section"
      className="keep-whole"
      borderTop="1.5px solid"
      borderColor="ink"
      paddingY="3"
      aria-label={`Pour ${pour.number}`}
    >
      <Flex justify="space-between" align="baseline" wrap="wrap" columnGap="4">
        <Heading as="h2" fontSize="22px" fontWeight={800}>
          Pour {pour.number}
        </Heading>
        <Box fontWeight={700} fontSize="17px">
          {whenText(pour.clock.starts_at)}
        </Box>
        <Box color="depth" fontStyle="italic">
          {lengthText(pour.bottom_depth_mm, units, 1)} up to {lengthText(pour.top_depth_mm, units, 1)}
        </Box>
      </Flex>
      <Flex
        direction={{ base: "column", md: "row" }}
        gap={{ base: 3, md: 8 }}
        marginTop="2"
        align={{ base: "stretch", md: "flex-start" }}
      >
        <Box width={{ base: "auto", md: "340px" }} flexShrink="0">
          <Flex gap="6">
            <Big
              word={stocks ? "part A, plain" : "part A"}
              value={
                stocks
                  ? partText(scene, units, pour.cup.measured.plain_part_a_g, pour.cup.measured.plain_part_a_ml)
                  : partText(scene, units, mix.part_a_g, mix.part_a_ml)
              }
              under={
                stocks
                  ? `${partText(scene, units, mix.part_a_g, mix.part_a_ml)} with the stocks`
                  : otherText(scene, units, mix.part_a_g, mix.part_a_ml)
              }
            />
            <Big
              word="part B"
              value={partText(scene, units, mix.part_b_g, mix.part_b_ml)}
              under={otherText(scene, units, mix.part_b_g, mix.part_b_ml)}
            />
          </Flex>
          {cups > 1 ? (
            <Box>
              {cups} cups of {partText(scene, units, mix.cup_part_a_g, mix.cup_part_a_ml)} A and{" "}
              {partText(scene, units, mix.cup_part_b_g, mix.cup_part_b_ml)} B each, the stocks shared out among them
            </Box>
          ) : null}
          <Box color="soft">
            {resin?.name}, {resin ? `${ratioWords(resin)}, ` : ""}
            {volumeText(pour.fill.resin_volume_ml, units)} in the tank and {volumeText(pour.cup.allowance_ml, units)}{" "}
            for cup and walls
          </Box>
          {pour.fill.places.length > 1 ? (
            <Box fontWeight={700}>
              Pour it in {pour.fill.places.length} places:{" "}
              {pour.fill.places.map((place) => `${volumeText(place.volume_ml, units)} into ${place.name}`).join(", ")}
            </Box>
          ) : null}
          {pour.fill.trapped_ml > 0.05 ? (
            <Box color="watch">
              {volumeText(pour.fill.trapped_ml, units)} of air stays under figures: not counted in
            </Box>
          ) : null}
          <Colours pour={pour} units={units} />
        </Box>
        <Box flex="1">
          <Box as="ul" listStyleType="none" padding="0" margin="0">
            {steps.map((step) => (
              <Flex as="li" key={step.id} gap="2">
                <Box
                  as="span"
                  width="13px"
                  height="13px"
                  border="1.5px solid"
                  borderColor="ink"
                  flexShrink="0"
                  marginTop="4px"
                />
                <Box>
                  {step.title}
                  {step.clock_min ? `, ${step.after === "poured" ? "after " : ""}${step.clock_min} min` : ""}
                  {step.kind === "pour" || step.kind === "feel" || step.kind === "temper" ? (
                    <Box as="span" color="soft">
                      {" "}
                      {step.under}
                    </Box>
                  ) : null}
                </Box>
              </Flex>
            ))}
          </Box>
          <Box marginTop="2" fontStyle="italic">
            {pour.clock.label_words}.
            {pour.heat.cure
              ? ` Hottest ${temperatureText(pour.heat.cure.peak_c, units)}${pour.heat.peak_band ? ` (${temperatureText(pour.heat.peak_band.low_c, units)} to ${temperatureText(pour.heat.peak_band.high_c, units)})` : ""} after ${hoursText(pour.heat.cure.peak_at_h)}.`
              : ""}
          </Box>
          <Box fontWeight={700}>{next.charAt(0).toUpperCase() + next.slice(1)}</Box>
          {!last && pour.clock.opens_early_at && pour.clock.opens_late_at ? (
            <Box color="soft">
              It may open between {dayText(pour.clock.opens_early_at)}, {clockText(pour.clock.opens_early_at)} and{" "}
              {dayText(pour.clock.opens_late_at)}, {clockText(pour.clock.opens_late_at)}, as room and resin vary: feel
              its edge first
            </Box>
          ) : null}
        </Box>
      </Flex>
    </Box>
  );
}

/** What goes into the cup for colour: whole drops, or a stock whose part A is left out of the batch. */
function Colours({ pour, units }: { pour: PourOutcome; units: Units }) {
  const { doses } = pour.cup.measured;
  if (doses.length === 0) return null;
  return (
    <Box marginTop="1">
      {doses.map((one) => (
        <Box key={one.colourant_id} borderBottom="1px solid" borderColor="wash">
          <Flex justify="space-between">
            <span>
              {one.name}
              {one.factor > 1 ? `, stock 1:${one.factor}` : ""}
            </span>
            <Box as="span" fontWeight={700}>
              {one.weighed ? massText(one.stock_g, units) : `${one.drops} drops`}
            </Box>
          </Flex>
          {one.risk ? (
            <Box fontSize="14px" color="watch">
              {one.risk}
            </Box>
          ) : null}
        </Box>
      ))}
    </Box>
  );
}

function Big({ word, value, under }: { word: string; value: string; under: string }) {
  return (
    <Box>
      <Box color="soft">{word}</Box>
      <Box fontSize="32px" fontWeight={800} lineHeight="1.1">
        {value}
      </Box>
      <Box>{under}</Box>
    </Box>
  );
}
