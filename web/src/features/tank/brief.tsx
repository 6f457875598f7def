import { Box } from "@chakra-ui/react";

import type { Scene } from "../../api/types";
import { useDocument } from "../../desk/document";
import { NumberField } from "../../desk/fields";
import { HabitsFields } from "../../desk/habits";
import { DayField, DaysField, FreeField, QuietField } from "../../desk/hours";
import { SidesField } from "../../desk/sides";

/** What is wanted of this piece, and what differs in it from what the person has. */
export function BriefFields() {
  const { scene, keep } = useDocument();
  const { brief } = scene;
  const set = (change: Partial<Scene["brief"]>, note: string) => {
    keep({ ...scene, brief: { ...brief, ...change } }, note);
  };
  return (
    <>
      <NumberField
        label="scale, 1 to"
        value={brief.scale}
        take={(scale) => {
          set({ scale }, "scale");
        }}
      />
      <SidesField
        sides={brief.viewing_sides}
        take={(viewing_sides) => {
          set({ viewing_sides }, "sides that are seen");
        }}
      />
      <Box
        asChild
        display="flex"
        justifyContent="space-between"
        borderBottom="1px solid"
        borderColor="wash"
        color="soft"
      >
        <label>
          <span style={{ whiteSpace: "nowrap" }}>first pour</span>
          <input
            type="datetime-local"
            value={brief.first_pour_at.slice(0, 16)}
            style={{ fontWeight: 700, color: "var(--ink)", background: "transparent" }}
            onChange={(event) => {
              if (event.target.value) set({ first_pour_at: `${event.target.value}:00` }, "first pour");
            }}
          />
        </label>
      </Box>
      <FreeField
        free={brief.free}
        take={(free) => {
          set({ free }, "free hours");
        }}
      />
      {brief.free ? (
        <>
          <DaysField
            label="holidays"
            value={brief.free.holidays ?? []}
            take={(holidays) => {
              if (brief.free) set({ free: { ...brief.free, holidays } }, "holidays");
            }}
          />
          <DaysField
            label="days away"
            value={brief.free.away ?? []}
            take={(away) => {
              if (brief.free) set({ free: { ...brief.free, away } }, "days away");
            }}
          />
        </>
      ) : null}
      <QuietField
        value={brief.quiet}
        take={(quiet) => {
          set({ quiet }, "quiet hours");
        }}
      />
      <DayField
        label="wanted by"
        value={brief.deadline}
        take={(deadline) => {
          set({ deadline }, "day by which it is wanted");
        }}
      />
      <NumberField
        label="a kilogram of resin costs"
        value={brief.price_per_kg ?? 0}
        take={(price) => {
          set({ price_per_kg: price > 0 ? price : null }, "price of the resin");
        }}
      />
      <NumberField
        label="the resin may cost (0: any)"
        value={brief.budget ?? 0}
        take={(most) => {
          set({ budget: most > 0 ? most : null }, "budget");
        }}
      />
      <Box fontWeight={800} marginTop="3">
        How it is mixed
      </Box>
      <HabitsFields
        habits={brief.habits ?? {}}
        take={(habits) => {
          set({ habits }, "how it is mixed");
        }}
      />
    </>
  );
}
