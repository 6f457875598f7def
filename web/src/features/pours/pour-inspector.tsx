import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box, Flex } from "@chakra-ui/react";

import { ratioWords, resinOf } from "../../desk/names";
import type { CureSpan } from "../../api/types";
import { type OnePart, Parts } from "../../ui/parts";
import { Pill, Word } from "../../ui/pill";
import { Choice, Row, Tick, Title } from "../../ui/row";
import { Sources } from "../../ui/sources";
import {
  differenceText,
  hoursBand,
  hoursText,
  lengthFigure,
  lengthText,
  moment,
  temperatureFigure,
  temperatureUnit,
  volumeText,
} from "../../units/display";
import { HoursField, LengthField, NumberField, TemperatureField } from "../../desk/fields";
import { optionsOf } from "../../desk/shelf";
import { partText } from "../../desk/measures";
import { withLine, withPour } from "../../desk/edits";
import { Grains } from "./grains";

/** The local moment at which a pour begins; moves its wait. */
function StartField() {
  const { scene, keep, outcome } = useDocument();
  const { pourNumber } = useChoice();
  const told = outcome.pours[pourNumber - 1];
  const before = outcome.pours[pourNumber - 2];
  if (!told || !before) return null;
  return (
    <Flex
      asChild
      justify="space-between"
      align="baseline"
      borderBottom="1px solid"
      borderColor="wash"
      paddingY="2px"
      color="soft"
    >
      <label>
        begins
        <input
          type="datetime-local"
          value={told.clock.starts_at.slice(0, 16)}
          style={{ fontWeight: 700, color: "var(--ink)", background: "transparent" }}
          onChange={(event) => {
            if (!event.target.value) return;
            const wait_h =
              (moment(event.target.value).getTime() - moment(before.clock.starts_at).getTime()) / 3_600_000;
            if (wait_h >= 0 && wait_h <= 720)
              keep(
                withPour(scene, pourNumber, { wait_h: Math.round(wait_h * 10) / 10 }),
                `start of pour ${pourNumber}`,
              );
          }}
        />
      </label>
    </Flex>
  );
}

/** How early and how late a moment may come. */
function Range({ span }: { span: CureSpan | null | undefined }) {
  return span ? (
    <Box as="span" color="soft" fontWeight={400}>
      {" "}
      {hoursBand(span)}
    </Box>
  ) : null;
}

/** The air around the piece. */
export function Air() {
  const { scene, keep } = useDocument();
  const { brief } = scene;
  const set = (change: Partial<typeof brief.room>) => {
    keep({ ...scene, brief: { ...brief, room: { ...brief.room, ...change } } }, "room");
  };
  const box = brief.room.warm_box_c ?? null;
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>The room</Box>
      <TemperatureField
        label="by day"
        value={brief.room.day_c}
        take={(day_c) => {
          set({ day_c });
        }}
      />
      <TemperatureField
        label="by night"
        value={brief.room.night_c}
        take={(night_c) => {
          set({ night_c });
        }}
      />
      <Tick
        label="fan on the piece"
        value={brief.room.fan ?? false}
        take={(fan) => {
          set({ fan });
        }}
      />
      <Tick
        label="in a warm box"
        value={box !== null}
        take={(on) => {
          set({ warm_box_c: on ? 28 : null });
        }}
      />
      {box === null ? null : (
        <TemperatureField
          label="box at"
          value={box}
          take={(warm_box_c) => {
            set({ warm_box_c });
          }}
        />
      )}
    </Box>
  );
}

/** What is told and typed of the chosen pour; what else its stage offers stands behind words of its own. */
export function PourInspector({ more }: { more: readonly OnePart[] }) {
  const { outcome, units } = useDocument();
  const { pourNumber, choosePour } = useChoice();
  const told = outcome.pours[pourNumber - 1];
  return (
    <>
      <Flex align="baseline" gap="1" wrap="wrap" role="group" aria-label="Pours">
        <Title>Pour</Title>
        {outcome.pours.map(({ number }) => (
          <Word
            key={number}
            fontSize="18px"
            paddingX="5px"
            minWidth="26px"
            aria-label={`Pour ${number}`}
            aria-pressed={number === pourNumber}
            fontWeight={number === pourNumber ? 800 : 400}
            color={number === pourNumber ? "ink" : "depth"}
            onClick={() => {
              choosePour(number);
            }}
          >
            {number}
          </Word>
        ))}
        {told ? (
          <Box color="soft" fontStyle="italic" marginLeft="auto" whiteSpace="nowrap">
            {lengthFigure(told.top_depth_mm, units)} to {lengthText(told.bottom_depth_mm, units)}
          </Box>
        ) : null}
      </Flex>
      <Parts
        label="the pour"
        parts={[
          { word: "plan", part: <Plan /> },
          { word: "facts", part: <Facts /> },
          ...more,
          { word: "grains", part: <Grains /> },
        ]}
      />
    </>
  );
}

function useChosen() {
  const { scene, outcome } = useDocument();
  const { pourNumber } = useChoice();
  return { pourNumber, pour: scene.pours[pourNumber - 1], told: outcome.pours[pourNumber - 1] };
}

/** What is set, and the few numbers that decide. */
function Plan() {
  const { scene, keep, change, units } = useDocument();
  const { pourNumber, pour, told } = useChosen();
  if (!pour || !told) return null;
  const resin = resinOf(scene, pour.resin_id);
  const { cure, peak_band } = told.heat;
  const ratio = ratioWords(resin);
  return (
    <>
      <Choice
        label="resin"
        value={pour.resin_id}
        options={optionsOf(scene.resins, resin ?? { id: pour.resin_id, name: pour.resin_id })}
        take={(resin_id) => {
          keep(withPour(scene, pourNumber, { resin_id }), `resin of pour ${pourNumber}`);
        }}
      />
      {pourNumber < scene.pours.length ? (
        <LengthField
          label="line at"
          value={pour.top_depth_mm}
          take={(mm) => {
            keep(withLine(scene, pourNumber, mm), `line of pour ${pourNumber}`);
          }}
        />
      ) : null}
      <TemperatureField
        label="mix at"
        value={pour.mix_c}
        take={(mix_c) => {
          keep(withPour(scene, pourNumber, { mix_c }), `mix of pour ${pourNumber}`);
        }}
      />
      {pourNumber > 1 ? <StartField /> : null}
      {pourNumber > 1 ? (
        <HoursField
          label={`after pour ${pourNumber - 1}`}
          value={pour.wait_h}
          take={(wait_h) => {
            keep(withPour(scene, pourNumber, { wait_h }), `wait before pour ${pourNumber}`);
          }}
        />
      ) : null}
      <Box as="dl" margin="0">
        <Row label="volume" known="volume">
          {volumeText(told.fill.resin_volume_ml, units)}
        </Row>
        <Row label="part A" known="parts" hint={ratio}>
          {partText(scene, units, told.cup.mix.part_a_g, told.cup.mix.part_a_ml)}
        </Row>
        <Row label="part B" known="parts" hint={ratio}>
          {partText(scene, units, told.cup.mix.part_b_g, told.cup.mix.part_b_ml)}
        </Row>
        {cure ? (
          <>
            <Row
              label="peak"
              known="peak"
              hint="draft march; the range is for room, rate and heat of the resin at both ends"
            >
              {temperatureFigure(cure.peak_c, units)} {temperatureUnit(units)}
              {peak_band ? (
                <Box as="span" color="soft" fontWeight={400}>
                  {" "}
                  {temperatureFigure(peak_band.low_c, units)} to {temperatureFigure(peak_band.high_c, units)}
                </Box>
              ) : null}
            </Row>
            <Row label="tacky" known="tacky" hint="from its last corner's gel until its last corner is no longer tacky">
              {hoursText(cure.tack_opens_h)} to {hoursText(cure.tack_closes_h)}
            </Row>
            <Row
              label="comes out"
              known="comes_out"
              hint="its last corner is hard enough to handle, and all of it is cool"
            >
              {hoursText(cure.demould_h)}
            </Row>
          </>
        ) : null}
        <Row label="joint below" known="joint">
          {told.joint.words}
        </Row>
      </Box>
      <NumberField
        label={told.hands.own ? "hands on it, as you say" : "hands on it"}
        unit="min"
        value={Math.round(told.hands.planned_min)}
        take={(hands_min) => {
          keep(
            withPour(scene, pourNumber, { hands_min: hands_min > 0 ? hands_min : null }),
            `hands-on time of pour ${pourNumber}`,
          );
        }}
      />
      <Flex gap="2" marginTop="3" wrap="wrap">
        <Pill
          onClick={() => {
            change({ kind: "split_pour", number: pourNumber });
          }}
        >
          split in two
        </Pill>
        <Pill
          disabled={scene.pours.length < 2}
          onClick={() => {
            change({ kind: "take_pour_out", number: pourNumber });
          }}
        >
          take it out
        </Pill>
      </Flex>
    </>
  );
}

/** All that is computed of the pour. */
function Facts() {
  const { scene, outcome, units } = useDocument();
  const { pour, told } = useChosen();
  if (!pour || !told) return null;
  const resin = resinOf(scene, pour.resin_id);
  const { cure, spans } = told.heat;
  const { mix } = told.cup;
  const ratio = ratioWords(resin);
  return (
    <>
      <Box as="dl" margin="0">
        <Row label="deep" known="deep">
          {lengthText(told.fill.depth_mm, units, 1)}
        </Row>
        <Row label="and for cups and walls" hint="films in the cups; with the last pour, the climb at the walls">
          {volumeText(told.cup.allowance_ml, units)}
        </Row>
        <Row
          label="label's time"
          known="label_time"
          hint="the label's working time, at the temperature of this mix; a larger cup has less, see below"
        >
          {hoursText(told.hands.working_min / 60)}
        </Row>
        <Row label="in">{mix.cups_count === 1 ? "1 cup" : `${mix.cups_count} cups`}</Row>
        {cure ? (
          <>
            <Row label="hottest after" known="peak">
              {hoursText(cure.peak_at_h)}
            </Row>
            <Row label="tack opens" known="tacky" hint="its last corner gels">
              {hoursText(cure.tack_opens_h)}
              <Range span={spans?.tack_opens} />
            </Row>
            <Row label="tack closes" known="tacky" hint="its last corner is no longer tacky">
              {hoursText(cure.tack_closes_h)}
              <Range span={spans?.tack_closes} />
            </Row>
            <Row
              label="hard"
              known="hard"
              hint={
                cure.demould_h === null
                  ? "glassy at this room's mean, and no further: it softens again where it is warmer"
                  : "glassy at the mean of this room"
              }
            >
              {hoursText(cure.hard_h)}
              {cure.demould_h === null && cure.hard_h !== null ? ", only as cold as this room" : ""}
              <Range span={spans?.hard} />
            </Row>
            <Row
              label="comes out"
              known="comes_out"
              hint="its last corner is hard enough to handle, and all of it is cool"
            >
              {hoursText(cure.demould_h)}
              <Range span={spans?.demould} />
            </Row>
            <Row label="full cure" known="full_cure">
              {hoursText(cure.full_cure_d * 24)}
              <Range span={spans?.full_cure} />
            </Row>
          </>
        ) : null}
        {told.light ? (
          <Row label="lamp" hint="simple model: straight light, no scatter">
            {told.light.cures_through
              ? `${told.light.lamp_min} min`
              : `too deep: ${lengthText(told.light.most_layer_mm, units, 1)} at most`}
            {told.light.shadow_fraction > 0.02 ? `, ${Math.round(told.light.shadow_fraction * 100)} % in shadow` : ""}
          </Row>
        ) : null}
        {told.grains.map((one) => (
          <Row key={one.kind} label={`${one.kind.replace("_", " ")} sinks`}>
            {one.reaches_floor ? "to the floor" : lengthText(one.sinks_mm, units, 1)}
          </Row>
        ))}
        {told.heat.stress ? (
          <Row label="shrinks after gel" known="shrinks" hint="gap at each wall if it lets go">
            {(told.heat.stress.after_gel_fraction * 100).toFixed(2)} %, {lengthText(told.heat.stress.gap_mm, units, 1)}
          </Row>
        ) : null}
        {told.heat.stress ? (
          <Row label="stress of its strength" known="stress" hint={`near 100 % it cracks; ${told.heat.stress.words}`}>
            {Math.round(told.heat.stress.stress_index * 100)} %
          </Row>
        ) : null}
        <Row label="joint below" known="joint">
          {told.joint.words}
          {told.joint.seam ? `, step ${told.joint.seam.seam_de00.toFixed(1)}` : ""}
        </Row>
        {told.joint.bond ? (
          <Row
            label="free to bond there"
            known="bond"
            hint={`the face below is ${Math.round(told.joint.bond.below_cured_fraction * 100)} % cured by then`}
          >
            {Math.round(told.joint.bond.bond_fraction * 100)} %
          </Row>
        ) : null}
      </Box>
      <Sources>
        {[
          [
            "volume",
            "fine columns over bed and figures, exact in height; overlaps count once; what is reached, less the air that stays",
          ],
          ["parts", `${ratio}, brought to mass by the densities of both parts`],
          [
            "peak",
            `heat and cure marched in three dimensions on cells of ${lengthText(outcome.march.cell_mm, units, 1)}, ${outcome.march.steps_count} steps; energy closes to ${outcome.march.imbalance_fraction}; grid error ${outcome.march.peak_error_k === null ? "not told in runaway" : differenceText(outcome.march.peak_error_k, units, 1)}`,
          ],
          [
            "ranges",
            "room, rate and heat of cure off by their spreads, all low and all high; the resin's own row holds its spread",
          ],
          [
            "tack",
            resin
              ? `from the gel of the last corner (${Math.round(resin.gel_degree * 100)} % cured) until its tack is gone (${Math.round(resin.tack_free_degree * 100)} %)`
              : "from the gel of the last corner until its tack is gone",
          ],
          ["bond", "ends left to react in the face below, over those at its gel (assumed)"],
          ["hands", "stirring by cup, a thin stream, a minute a figure, a last look; type your own (assumed)"],
          ["hard", "when the last corner is glassy at the mean room (assumed)"],
          [
            "resin",
            `a generic class; ${resin?.derived ? resin.derived : "your own row"}${resin ? `; rate ± ${Math.round((resin.rate_spread_fraction ?? 0) * 100)} %, heat ± ${Math.round((resin.heat_spread_fraction ?? 0) * 100)} %` : ""}; your maker's data sheet comes first`,
          ],
          [
            "stress",
            "the largest of: a core that cools in a hard skin, over the pull at which rubber tears; a core that froze warmer than its skin, and glass held by walls or a hard bed, over its strength (shares assumed)",
          ],
        ]}
      </Sources>
    </>
  );
}
