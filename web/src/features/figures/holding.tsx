import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";

import type { Figure } from "../../api/types";
import { Choice } from "../../ui/row";
import { LengthField, NumberField, SmallAreaField } from "../../desk/fields";

/** Every way of holding a figure, checked, the chosen one marked. */
export function Holding({ figure, set }: { figure: Figure; set: (change: Partial<Figure>, note: string) => void }) {
  const { outcome } = useDocument();
  const fact = outcome.figures.find((one) => one.figure_id === figure.id);
  if (!fact) return null;
  const hold = figure.hold ?? {};
  const change = (next: Partial<NonNullable<Figure["hold"]>>) => {
    set({ hold: { ...hold, ...next } as NonNullable<Figure["hold"]> }, "hold of");
  };
  const chosen = figure.holding ?? "on_bed";
  return (
    <Box marginTop="3" role="radiogroup" aria-label="How it is held">
      <Box fontWeight={800}>How it is held</Box>
      {fact.ways.map((way) => (
        <Box
          asChild
          key={way.way}
          display="block"
          width="100%"
          textAlign="left"
          cursor="pointer"
          paddingLeft="8px"
          paddingY="3px"
          borderLeft="4px solid"
          borderColor={way.way === chosen ? "ink" : "transparent"}
          bg={way.way === chosen ? "wash" : "transparent"}
        >
          <button
            type="button"
            role="radio"
            aria-checked={way.way === chosen}
            onClick={() => {
              set({ holding: way.way as "pin" }, "holding of");
            }}
          >
            <Box as="span" fontWeight={way.way === chosen ? 800 : 500}>
              {way.name}{" "}
            </Box>
            <Box as="span" fontStyle="italic" color={way.holds ? "depth" : "caution"}>
              {way.holds ? "holds" : "does not"}
            </Box>
            <Box fontSize="14px" color="soft" lineHeight="1.2">
              {way.sentence}
            </Box>
          </button>
        </Box>
      ))}
      {chosen === "stem" ? (
        <LengthField
          label="stem"
          value={hold.stem_mm ?? 3}
          take={(stem_mm) => {
            change({ stem_mm });
          }}
        />
      ) : null}
      {chosen === "wire" || chosen === "pin" ? (
        <>
          <Choice
            label="wire of"
            value={hold.wire ?? "steel"}
            options={[
              ["steel", "steel"],
              ["brass", "brass"],
              ["copper", "copper"],
              ["aluminium", "aluminium"],
            ]}
            take={(wire) => {
              change({ wire: wire as "steel" });
            }}
          />
          <LengthField
            label="wire"
            value={hold.wire_mm ?? 0.8}
            take={(wire_mm) => {
              change({ wire_mm });
            }}
          />
        </>
      ) : null}
      {chosen === "stem" || chosen === "wire" ? (
        <NumberField
          label="leans"
          unit="°"
          value={hold.lean_deg ?? 15}
          take={(lean_deg) => {
            change({ lean_deg });
          }}
        />
      ) : null}
      {chosen === "pin" ? (
        <LengthField
          label="deep in the bed"
          value={hold.pin_depth_mm ?? 6}
          take={(pin_depth_mm) => {
            change({ pin_depth_mm });
          }}
        />
      ) : null}
      {chosen === "glue_spot" ? (
        <SmallAreaField
          label="glue"
          value={hold.glue_mm2 ?? 20}
          take={(glue_mm2) => {
            change({ glue_mm2 });
          }}
        />
      ) : null}
    </Box>
  );
}
