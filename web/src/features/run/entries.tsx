import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import type { BenchStep, CupState, InstrumentState, RunNow, Units } from "../../api/types";
import { lengthText, volumeText, weighedText } from "../../units/display";
import { unitOf } from "../../units/table";
import { Huge, Target, Typed } from "./parts";
import { densityOf, massFigure } from "./read";

export interface Entering {
  step: BenchStep;
  now: RunNow;
  units: Units;
  /** parts are measured in marked cups, for want of a scale */
  byVolume: boolean;
  /** as the bed is planned */
  sealed: boolean;
  scale: InstrumentState | null;
  thermometer: InstrumentState | null;
  entry: Record<string, string>;
  set: (field: string, text: string) => void;
}

/** Less than this on the scale is nothing. */
const UNTARED_G = 1;

/** What is entered with a step: by a device where one is connected, else typed. */
export function Entries(props: Entering) {
  switch (props.step.asks) {
    case "mass":
      return props.byVolume && !props.scale?.plugged && props.step.target_ml ? (
        <MarkedCup {...props} />
      ) : (
        <Weighing {...props} />
      );
    case "drops":
      return <Drops {...props} />;
    case "room":
    case "mix":
      return <Warmth {...props} />;
    case "sealed":
      return <Sealed {...props} />;
    case "level":
      return <Level {...props} />;
    case "line":
      return <Line {...props} />;
    default:
      return null;
  }
}

/** Part A or B against its mark: live from the scale, or as typed. */
function Weighing({ step, now, units, scale, entry, set }: Entering) {
  const cup = now.state.cups.find((one) => one.pour_id === step.pour_id && one.cup === step.cup);
  const target = targetOf(step, cup);
  const live = scale?.plugged ? scale : null;
  const shown = live ? (live.mass_g ?? null) : null;
  const togo = shown === null ? null : target - shown;
  return (
    <Box>
      <Flex align="baseline" columnGap="40px" rowGap="8px" wrap="wrap">
        {live ? (
          <Box aria-live="off" data-testid="scale">
            <Huge unit={units.mass === "oz" ? "oz" : "g"}>{live.overloaded ? "over" : massFigure(shown, units)}</Huge>
          </Box>
        ) : null}
        <Box fontSize={{ base: "30px", md: "42px" }} lineHeight="1.2">
          <div>
            {live ? "of " : ""}
            <Box as="span" fontWeight={live ? 500 : 800} fontSize={live ? "1em" : "2em"}>
              {weighedText(target, units)}
            </Box>
          </div>
          {togo !== null ? (
            <Box fontWeight={800} color={togo < -0.15 ? "caution" : "depth"}>
              {togo >= -0.15
                ? `${weighedText(Math.max(0, togo), units)} to go`
                : `${weighedText(-togo, units)} too much`}
            </Box>
          ) : null}
        </Box>
      </Flex>
      {live ? <Untared key={step.id} shown={shown} units={units} /> : null}
      {togo !== null && togo < -0.3 ? (
        <Box fontSize="22px" color="soft">
          Keep going: what puts it right is told next.
        </Box>
      ) : null}
      {shown !== null ? <Bar share={shown / target} /> : null}
      {live ? (
        <Box fontSize="20px" fontStyle="italic" color="soft" marginTop="6px">
          scale: {live.overloaded ? "overloaded" : live.steady ? "steady" : "moving"}
          {live.simulated ? ", simulated" : ""}
        </Box>
      ) : (
        <Box marginTop="16px">
          <Typed
            label={scale ? "the scale is silent; it shows" : "the scale shows"}
            unit={units.mass === "oz" ? "oz" : "g"}
            value={entry.mass ?? massFigure(target, units)}
            set={(text) => {
              set("mass", text);
            }}
          />
        </Box>
      )}
    </Box>
  );
}

/** What stood on the scale as the step began, until it is tared. */
function Untared({ shown, units }: { shown: number | null; units: Units }) {
  const [began] = useState(shown);
  const [tared, setTared] = useState(began === null || Math.abs(began) < UNTARED_G);
  if (!tared && shown !== null && Math.abs(shown) < UNTARED_G) setTared(true);
  if (tared || began === null) return null;
  return (
    <Box fontSize="22px" fontWeight={700} color="caution" role="alert">
      Tare it first: {weighedText(began, units)} stood on the scale as this began.
    </Box>
  );
}

/** A part in a marked cup. */
function MarkedCup({ step, now, units, entry, set }: Entering) {
  const cup = now.state.cups.find((one) => one.pour_id === step.pour_id && one.cup === step.cup);
  const target_ml = targetOf(step, cup) / densityOf(step);
  const unit = unitOf("volume", units);
  return (
    <Box>
      <Huge>{volumeText(target_ml, units, 1)}</Huge>
      <Box marginTop="16px">
        <Typed
          label="the cup shows"
          unit={unit.word}
          value={entry.mass ?? unit.fromDocument(target_ml).toFixed(1)}
          set={(text) => {
            set("mass", text);
          }}
        />
      </Box>
    </Box>
  );
}

/** Whether the bed is sealed, as one finds it. */
function Sealed({ sealed, entry, set }: Entering) {
  const now = entry.sealed ? entry.sealed === "1" : sealed;
  return (
    <Flex gap="16px" wrap="wrap">
      {([true, false] as const).map((one) => (
        <Target
          key={String(one)}
          main={now === one}
          aria-pressed={now === one}
          onClick={() => {
            set("sealed", one ? "1" : "0");
          }}
        >
          {one ? "the bed is sealed" : "it is not sealed"}
        </Target>
      ))}
    </Flex>
  );
}

/** Part B follows the part A that is really in the cup. */
export function targetOf(step: BenchStep, cup: CupState | undefined): number {
  if (step.kind === "weigh_b" && cup && cup.part_a_g > 0) return cup.target_b_g;
  return step.target_g ?? 0;
}

function Bar({ share }: { share: number }) {
  const over = share > 1.002;
  return (
    <Box position="relative" height="40px" bg="wash" marginTop="12px" maxWidth="800px" role="presentation">
      <Box
        height="100%"
        bg={over ? "caution" : "set"}
        width={`${Math.min(100, Math.max(0, share * 94))}%`}
        transition="width 0.1s linear"
      />
      <Box position="absolute" left="94%" top="-8px" bottom="-8px" width="4px" bg="ink" />
    </Box>
  );
}

function Drops({ step, units, entry, set }: Entering) {
  if (step.drops == null) return <Huge>{weighedText(step.target_g ?? 0, units)}</Huge>;
  const count = Number(entry.drops ?? step.drops);
  return (
    <Flex align="center" gap="20px" wrap="wrap">
      <Target
        aria-label="a drop less"
        onClick={() => {
          set("drops", String(Math.max(0, count - 1)));
        }}
      >
        −
      </Target>
      <Huge unit={count === 1 ? "drop" : "drops"}>{count}</Huge>
      <Target
        aria-label="a drop more"
        onClick={() => {
          set("drops", String(count + 1));
        }}
      >
        +
      </Target>
    </Flex>
  );
}

function Warmth({ step, units, thermometer, entry, set }: Entering) {
  const read = step.asks === "room" ? thermometer?.room_c : thermometer?.resin_c;
  const live = thermometer?.plugged && read != null ? read : null;
  return (
    <Typed
      label={live !== null ? "the thermometer shows" : "it reads"}
      unit={units.temperature === "f" ? "°F" : "°C"}
      value={
        entry.warm ?? (live === null ? "" : String(units.temperature === "f" ? Math.round(live * 1.8 + 32) : live))
      }
      set={(text) => {
        set("warm", text);
      }}
    />
  );
}

function Level({ units, entry, set }: Entering) {
  const unit = units.length === "in" ? "in" : "mm";
  return (
    <Flex gap="24px" wrap="wrap">
      <Typed
        label="right side lower by"
        unit={unit}
        value={entry.right ?? "0"}
        set={(text) => {
          set("right", text);
        }}
      />
      <Typed
        label="front lower by"
        unit={unit}
        value={entry.front ?? "0"}
        set={(text) => {
          set("front", text);
        }}
      />
    </Flex>
  );
}

function Line({ now, units, entry, set }: Entering) {
  const rim = now.state.rim;
  const unit = units.length === "in" ? "in" : "mm";
  if (!rim) return null;
  const corners = [rim.back_left_mm, rim.back_right_mm, rim.front_left_mm, rim.front_right_mm];
  const same = Math.max(...corners) - Math.min(...corners) < 0.3;
  return (
    <Box>
      <Box fontSize="22px" color="soft">
        {same ? "from the rim down, all round" : "from the rim down, at each corner"}
      </Box>
      {same ? (
        <Huge>{lengthText(rim.front_left_mm, units, 1)}</Huge>
      ) : (
        <Box
          display="grid"
          gridTemplateColumns="auto auto"
          gap="8px 40px"
          width="fit-content"
          fontSize="48px"
          fontWeight={800}
        >
          <Corner word="back left" text={lengthText(rim.back_left_mm, units, 1)} />
          <Corner word="back right" text={lengthText(rim.back_right_mm, units, 1)} />
          <Corner word="front left" text={lengthText(rim.front_left_mm, units, 1)} />
          <Corner word="front right" text={lengthText(rim.front_right_mm, units, 1)} />
        </Box>
      )}
      <Box marginTop="16px">
        <Typed
          label="ended below the line by"
          unit={unit}
          value={entry.line ?? "0"}
          set={(text) => {
            set("line", text);
          }}
        />
      </Box>
    </Box>
  );
}

function Corner({ word, text }: { word: string; text: string }) {
  return (
    <Box lineHeight="1.05">
      <Box fontSize="20px" fontWeight={400} color="soft">
        {word}
      </Box>
      {text}
    </Box>
  );
}
