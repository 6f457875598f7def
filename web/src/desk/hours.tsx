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
const HOURS: Record<(typeof FREE)[number][0], Free> = {
  evenings: { weekday: [17, 22], weekend: [8, 22] },
  weekends: { weekday: null, weekend: [8, 22] },
  days: { weekday: [9, 18], weekend: [9, 18] },
  any: null,
};

function freeKey(free: Free | undefined): string {
  return FREE.find(([key]) => JSON.stringify(HOURS[key]) === JSON.stringify(free ?? null))?.[0] ?? "own";
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
        if (chosen !== "own") take(HOURS[chosen as keyof typeof HOURS]);
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
