import type { Usual } from "../api/types";
import { Choice, Tick } from "../ui/row";
import { NumberField } from "./fields";

export type Habits = NonNullable<Usual["habits"]>;

const MEASURES = [
  ["mass", "a scale"],
  ["volume", "marked cups"],
] as const;
const POURS = [
  ["low", "low, down a stick or a wall"],
  ["high", "in a thin stream, a hand's height up"],
  ["broken", "in a broken stream"],
] as const;
const STIRS = [
  ["slow", "slowly, by hand"],
  ["brisk", "briskly"],
  ["paddle", "by a paddle machine"],
] as const;

/** How the person mixes: in a scene, or once for all. */
export function HabitsFields({ habits, take }: { habits: Habits; take: (habits: Habits) => void }) {
  return (
    <>
      <Choice
        label="parts are measured by"
        value={habits.measures ?? "mass"}
        options={MEASURES}
        take={(measures) => {
          take({ ...habits, measures: measures as "mass" });
        }}
      />
      {(habits.measures ?? "mass") === "mass" ? (
        <NumberField
          label="smallest step of the scale"
          unit="g"
          value={habits.scale_step_g ?? 0.1}
          take={(scale_step_g) => {
            take({ ...habits, scale_step_g });
          }}
        />
      ) : null}
      <Choice
        label="stirred"
        value={habits.stirs ?? "slow"}
        options={STIRS}
        take={(stirs) => {
          take({ ...habits, stirs: stirs as "slow" });
        }}
      />
      <Choice
        label="poured"
        value={habits.pours ?? "low"}
        options={POURS}
        take={(pours) => {
          take({ ...habits, pours: pours as "low" });
        }}
      />
      <NumberField
        label="then the cup rests"
        unit="min"
        value={habits.rest_min ?? 2}
        take={(rest_min) => {
          take({ ...habits, rest_min });
        }}
      />
      <Tick
        label="vacuum on the mixed cup"
        value={habits.vacuum ?? false}
        take={(vacuum) => {
          take({ ...habits, vacuum });
        }}
      />
      <NumberField
        label="pressure pot until hard (0: none)"
        unit="bar"
        value={habits.pot_bar ?? 0}
        take={(pot_bar) => {
          take({ ...habits, pot_bar });
        }}
      />
      <Tick
        label="covered against dust while it sets"
        value={habits.covered ?? true}
        take={(covered) => {
          take({ ...habits, covered });
        }}
      />
    </>
  );
}
