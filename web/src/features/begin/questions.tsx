import { Box, Flex } from "@chakra-ui/react";

import { LengthField, NumberField, TemperatureField } from "../../desk/fields";
import { DayField, FreeField } from "../../desk/hours";
import { solidsFor, useShelf } from "../../desk/shelf";
import { SidesField } from "../../desk/sides";
import { Pill, Word } from "../../ui/pill";
import { Choice, Tick } from "../../ui/row";
import { type Answers, type Asked, withCount } from "./answers";
import { BedDrawn, ShapeDrawn, WaterDrawn } from "./drawn";
import { Photographed } from "./photographed";
import { Pick } from "./pick";

const UNITS = {
  metric: { length: "mm", temperature: "c", volume: "ml", mass: "g" },
  inches: { length: "in", temperature: "f", volume: "floz", mass: "oz" },
} as const;

export function ThePiece({ answers, take }: Asked) {
  return (
    <>
      <Pick
        label="shape"
        value={answers.shape.kind === "round" ? "round" : "box"}
        options={[
          { value: "box", word: "box", drawn: <ShapeDrawn kind="box" /> },
          { value: "round", word: "round", drawn: <ShapeDrawn kind="round" /> },
        ]}
        take={(kind) => {
          take(kind === "round" ? { shape: { kind }, behind_mm: answers.width_mm } : { shape: { kind } });
        }}
      />
      <LengthField
        label="across"
        value={answers.width_mm}
        take={(width_mm) => {
          take(answers.shape.kind === "round" ? { width_mm, behind_mm: width_mm } : { width_mm });
        }}
      />
      <LengthField
        label="front to back"
        value={answers.behind_mm}
        take={(behind_mm) => {
          take({ behind_mm });
        }}
      />
      <LengthField
        label="water, deep"
        value={answers.deep_mm}
        take={(deep_mm) => {
          take({ deep_mm });
        }}
      />
      <NumberField
        label="scale, 1 to"
        value={answers.scale}
        take={(scale) => {
          take({ scale });
        }}
      />
      <SidesField
        sides={answers.viewing_sides}
        take={(viewing_sides) => {
          take({ viewing_sides });
        }}
      />
      <Tick
        label="it stays in a clear container"
        value={answers.walls_stay}
        take={(walls_stay) => {
          take({ walls_stay, usual: { ...answers.usual, wall: walls_stay ? "glass" : "acrylic" } });
        }}
      />
      <ReadIn answers={answers} take={take} />
    </>
  );
}

const KINDS = ["fish", "eel", "hull", "wagon", "plank", "post", "ladder", "sphere", "ring", "tuft"] as const;
const BEDS: Answers["bed"][] = ["level", "slope", "bowl", "ledge", "channel", "reef"];

export function BedAndFigures({ answers, take }: Asked) {
  const shelf = useShelf();
  return (
    <>
      <Pick
        label="form of the bed"
        value={answers.bed}
        options={BEDS.map((bed) => ({ value: bed, word: bed, drawn: <BedDrawn bed={bed} /> }))}
        take={(bed) => {
          take({ bed, measured: [] });
        }}
      />
      <Photographed answers={answers} take={take} />
      <Choice
        label="bed made of"
        value={answers.bed_material}
        options={solidsFor(shelf, "bed").map((one) => [one.id, one.name] as const)}
        take={(bed_material) => {
          take({ bed_material });
        }}
      />
      <Box marginTop="3" color="soft">
        In the water and on the bed
      </Box>
      <Flex wrap="wrap" columnGap="4" rowGap="1" marginTop="1">
        {KINDS.map((kind) => {
          const count = answers.figures.find((one) => one.kind === kind)?.count ?? 0;
          const step = (by: number) => () => {
            take({ figures: withCount(answers.figures, kind, by) });
          };
          return (
            <Flex key={kind} align="center" gap="1" minWidth="128px">
              <Word aria-label={`one ${kind} less`} onClick={step(-1)} disabled={count === 0}>
                −
              </Word>
              <Box
                minWidth="1.2em"
                textAlign="center"
                fontWeight={count > 0 ? 800 : 400}
                aria-label={`${kind}: ${count}`}
              >
                {count}
              </Box>
              <Word aria-label={`one more ${kind}`} onClick={step(1)}>
                +
              </Word>
              {kind}
            </Flex>
          );
        })}
      </Flex>
    </>
  );
}

export function TheWater({ answers, take }: Asked) {
  const words: [Answers["water"], string][] = [
    ["clear", "clear"],
    ["blue", "open sea"],
    ["green", "green lake"],
    ["murky", "murky pond"],
  ];
  return (
    <>
      <Pick
        label="water"
        value={answers.water}
        options={words.map(([value, word]) => ({ value, word, drawn: <WaterDrawn water={value} /> }))}
        take={(water) => {
          take({ water });
        }}
      />
      <Box color="soft" maxWidth="54ch">
        The drops are solved so that light fades through your block as it does through so much real water at your scale,
        with the inks that you have.
      </Box>
    </>
  );
}

export function AtHand({ answers, take }: Asked) {
  const shelf = useShelf();
  const { usual } = answers;
  const keep = (change: Partial<Answers["usual"]>) => {
    take({ usual: { ...usual, ...change } });
  };
  const owned = usual.owned ?? [];
  const named = (use: string) => solidsFor(shelf, use).map((one) => [one.id, one.name] as const);
  return (
    <>
      <Choice
        label="resin"
        value={usual.resin_id ?? "deep"}
        options={(shelf?.resins ?? []).map((one) => [one.id, one.name] as const)}
        take={(resin_id) => {
          keep({ resin_id });
        }}
      />
      <Choice
        label="dam of"
        value={usual.wall ?? "acrylic"}
        options={named("wall")}
        take={(wall) => {
          keep({ wall });
        }}
      />
      <Choice
        label="sealed with"
        value={usual.seal ?? "silicone"}
        options={named("seal")}
        take={(seal) => {
          keep({ seal });
        }}
      />
      <Choice
        label="base of"
        value={usual.base ?? "wood"}
        options={named("base")}
        take={(base) => {
          keep({ base });
        }}
      />
      <NumberField
        label="a kilogram of resin costs"
        value={usual.price_per_kg ?? 0}
        take={(price) => {
          keep({ price_per_kg: price > 0 ? price : null });
        }}
      />
      <Box marginTop="3" color="soft">
        Inks and pastes that you have
      </Box>
      <Flex wrap="wrap" gap="1" marginTop="1">
        {(shelf?.colourants ?? []).map((one) => {
          const has = owned.includes(one.id);
          return (
            <Pill
              key={one.id}
              aria-pressed={has}
              bg={has ? "ink" : "transparent"}
              color={has ? "paper" : "ink"}
              _hover={{ bg: has ? "depth" : "wash" }}
              onClick={() => {
                keep({ owned: has ? owned.filter((id) => id !== one.id) : [...owned, one.id] });
              }}
            >
              {one.name}
            </Pill>
          );
        })}
      </Flex>
    </>
  );
}

/** In which units everything is read and typed. */
export function ReadIn({ answers, take }: Asked) {
  return (
    <Choice
      label="read and typed in"
      value={answers.usual.units?.length === "in" ? "inches" : "metric"}
      options={[
        ["metric", "millimetres, °C"],
        ["inches", "inches, °F"],
      ]}
      take={(key) => {
        take({ usual: { ...answers.usual, units: UNITS[key as keyof typeof UNITS] } });
      }}
    />
  );
}

/** Free hours, and how warm the room is. */
export function Room({ answers, take }: Asked) {
  const { usual } = answers;
  const keep = (change: Partial<Answers["usual"]>) => {
    take({ usual: { ...usual, ...change } });
  };
  return (
    <>
      <FreeField
        free={usual.free}
        take={(free) => {
          keep({ free });
        }}
      />
      <TemperatureField
        label="room by day"
        value={usual.room_day_c ?? 22}
        take={(room_day_c) => {
          keep({ room_day_c });
        }}
      />
      <TemperatureField
        label="room by night"
        value={usual.room_night_c ?? 20}
        take={(room_night_c) => {
          keep({ room_night_c });
        }}
      />
    </>
  );
}

export function When({ answers, take }: Asked) {
  return (
    <>
      <Room answers={answers} take={take} />
      <DayField
        label="pour not before"
        value={answers.begins_on}
        take={(begins_on) => {
          take({ begins_on });
        }}
      />
      <DayField
        label="wanted by"
        value={answers.deadline}
        take={(deadline) => {
          take({ deadline });
        }}
      />
      <NumberField
        label="the resin may cost (0: never mind)"
        value={answers.budget ?? 0}
        take={(most) => {
          take({ budget: most > 0 ? most : null });
        }}
      />
    </>
  );
}
