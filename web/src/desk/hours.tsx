import { Box, Flex } from "@chakra-ui/react";

import type { Usual } from "../api/types";
import { Choice } from "../ui/row";

export type Free = Usual["free"];

const FREE = [
  ["evenings", "evenings and weekends"],
  ["weekends", "weekends only"],
  ["days", "every day, 9 to 18"],
  ["any", "any hour"],
] as const;
type Kinds = Pick<NonNullable<Free>, "weekday" | "weekend">;
const HOURS: Record<(typeof FREE)[number][0], Kinds | null> = {
  evenings: { weekday: [17, 22], weekend: [8, 22] },
  weekends: { weekday: null, weekend: [8, 22] },
  days: { weekday: [9, 18], weekend: [9, 18] },
  any: null,
};

const kinds = (free: Free | undefined): Kinds | null =>
  free ? { weekday: free.weekday ?? null, weekend: free.weekend ?? null } : null;

function freeKey(free: Free | undefined): string {
  return FREE.find(([key]) => JSON.stringify(HOURS[key]) === JSON.stringify(kinds(free)))?.[0] ?? "own";
}

/** When a person can stand at the bench. */
export function FreeField({ free, take }: { free: Free | undefined; take: (free: Free) => void }) {
  const key = freeKey(free);
  return (
    <Choice
      label="free"
      value={key}
      options={key === "own" ? [...FREE, ["own", "your own hours"]] : FREE}
      take={(chosen) => {
        const hours = HOURS[chosen as keyof typeof HOURS];
        if (chosen !== "own") take(hours && { holidays: [], away: [], ...free, ...hours });
      }}
    />
  );
}

/** A day, or none. */
export function DayField(props: {
  label: string;
  value: string | null | undefined;
  take: (day: string | null) => void;
}) {
  return (
    <Flex asChild justify="space-between" borderBottom="1px solid" borderColor="wash" paddingY="2px">
      <label>
        <Box as="span" color="soft">
          {props.label}
        </Box>
        <input
          type="date"
          value={props.value ?? ""}
          onChange={(event) => {
            props.take(event.target.value || null);
          }}
          style={{ background: "transparent", fontWeight: 700 }}
        />
      </label>
    </Flex>
  );
}

/** Days in a row of dates, such as holidays; what is no date is left as it was. */
export function DaysField(props: { label: string; value: readonly string[]; take: (days: string[]) => void }) {
  return (
    <TypedRow
      label={props.label}
      value={props.value.join(", ")}
      example="2027-05-17, 2027-12-24"
      take={(text) => {
        const days = text.split(/[\s,;]+/).filter(Boolean);
        const known = days.every((day) => /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(Date.parse(day)));
        if (known) props.take([...new Set(days)].sort());
        return known;
      }}
    />
  );
}

/** Hours of the day in which no alarm is to sound; they may go past midnight. */
export function QuietField(props: {
  value: readonly number[] | null | undefined;
  take: (hours: number[] | null) => void;
}) {
  return (
    <TypedRow
      label="quiet hours"
      value={props.value ? props.value.join(" to ") : ""}
      example="22 to 7"
      take={(text) => {
        const hours = (text.match(/\d+(\.\d+)?/g) ?? []).map(Number);
        const known = hours.length === 0 || (hours.length === 2 && hours.every((hour) => hour <= 24));
        if (known) props.take(hours.length ? hours : null);
        return known;
      }}
    />
  );
}

function TypedRow(props: { label: string; value: string; example: string; take: (text: string) => boolean }) {
  return (
    <Flex asChild justify="space-between" borderBottom="1px solid" borderColor="wash" paddingY="2px" gap="2">
      <label>
        <Box as="span" color="soft" whiteSpace="nowrap">
          {props.label}
        </Box>
        <input
          key={props.value}
          defaultValue={props.value}
          placeholder={props.example}
          onBlur={(event) => {
            if (event.target.value !== props.value && !props.take(event.target.value)) event.target.value = props.value;
          }}
          style={{ background: "transparent", fontWeight: 700, textAlign: "right", minWidth: 0, flex: 1 }}
        />
      </label>
    </Flex>
  );
}
