import { Box } from "@chakra-ui/react";

import type { Stand } from "../../api/types";
import { useDocument } from "../../desk/document";
import { LengthField, NumberField } from "../../desk/fields";
import { Word } from "../../ui/pill";
import { Choice } from "../../ui/row";

interface Fields {
  stand: Stand;
  take: (stand: Stand) => void;
}

const HOURS = [
  ["day", "by day"],
  ["evening", "by evening"],
  ["lamp", "lamp on"],
] as const;

/** The light it is looked at in. */
export function Hours({ stand, take }: Fields) {
  const figures = useDocument().scene.figures ?? [];
  const first = figures.find((one) => one.lamp) ?? figures[0];
  return (
    <Box role="group" aria-label="Hour" as="span">
      {HOURS.map(([hour, word]) => (
        <Word
          key={hour}
          aria-pressed={stand.hour === hour}
          fontWeight={stand.hour === hour ? 700 : 400}
          onClick={() => {
            take({ ...stand, hour, lamp_in: hour === "lamp" ? (stand.lamp_in ?? first?.id ?? null) : stand.lamp_in });
          }}
        >
          {word}
        </Word>
      ))}
    </Box>
  );
}

/** Where the eye is, typed. */
export function Eye({ stand, take }: Fields) {
  const figures = useDocument().scene.figures ?? [];
  return (
    <Box role="group" aria-label="The eye">
      <LengthField
        label="eye above the shelf"
        value={stand.eye_height_mm}
        take={(eye_height_mm) => {
          take({ ...stand, eye_height_mm });
        }}
      />
      <LengthField
        label="eye away"
        value={stand.distance_mm}
        take={(distance_mm) => {
          take({ ...stand, distance_mm });
        }}
      />
      <NumberField
        label="round the piece"
        unit="°"
        value={stand.azimuth_deg ?? 0}
        take={(azimuth_deg) => {
          take({ ...stand, azimuth_deg });
        }}
      />
      {stand.hour === "lamp" ? (
        <Choice
          label="the lamp is in"
          value={stand.lamp_in ?? ""}
          options={[["", "none"], ...figures.map((one) => [one.id, one.name] as const)]}
          take={(id) => {
            take({ ...stand, lamp_in: id || null });
          }}
        />
      ) : null}
      <Choice
        label="brighter"
        value={String(stand.stops ?? 0)}
        options={[
          ["0", "as an eye sees it"],
          ["1", "by one stop"],
          ["2", "by two stops"],
        ]}
        take={(stops) => {
          take({ ...stand, stops: Number(stops) });
        }}
      />
      {(["rule", "bubbles"] as const).map((what) => (
        <Word
          key={what}
          paddingLeft="0"
          aria-pressed={stand[what] ?? true}
          onClick={() => {
            take({ ...stand, [what]: !(stand[what] ?? true) });
          }}
        >
          {(stand[what] ?? true) ? "without" : "with"} {what === "rule" ? "the rule" : "bubbles"}
        </Word>
      ))}
    </Box>
  );
}
