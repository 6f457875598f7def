import { volumeText } from "../../units/display";
import { useDocument } from "../../desk/document";
import { ask } from "../../api/ask";
import { Box, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { api } from "../../api/client";
import type { Figure } from "../../api/types";
import { Pill } from "../../ui/pill";
import { Tick } from "../../ui/row";
import { Problem } from "../../ui/problem";

/** What empties the pockets under a figure: found by trying, each tried with one click. */
export function AirHelp({ figure, set }: { figure: Figure; set: (change: Partial<Figure>, note: string) => void }) {
  const desk = useDocument();
  const fact = desk.outcome.figures.find((one) => one.figure_id === figure.id);
  const asking = useMutation({
    mutationFn: async () => {
      return {
        data: await ask(api.POST("/api/air-remedies", { body: { scene: desk.scene, figure_id: figure.id } })),
        of: figure.id,
      };
    },
  });
  const trapped = fact?.trapped_ml ?? 0;
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>
        Air under it{" "}
        <Box as="span" fontWeight={400} fontStyle="italic" color={trapped > 0.05 ? "caution" : "soft"}>
          {trapped > 0.01 ? volumeText(trapped, desk.units, 2) : "none"}
        </Box>
      </Box>
      {trapped > 0.01 ? (
        <Pill
          tone="caution"
          marginTop="1"
          loading={asking.isPending}
          onClick={() => {
            asking.mutate();
          }}
        >
          what helps?
        </Pill>
      ) : null}
      {asking.data?.of === figure.id && trapped > 0.01 ? (
        <Flex wrap="wrap" gap="1" marginTop="1" role="group" aria-label="What helps">
          {asking.data.data.map((remedy) => (
            <Pill
              key={remedy.label}
              tone="depth"
              aria-label={`Try: ${remedy.label}`}
              onClick={() => {
                desk.tryOut(remedy);
              }}
            >
              {remedy.label}
            </Pill>
          ))}
        </Flex>
      ) : null}
      <Problem>{asking.error?.message}</Problem>
      <Tick
        label="brushed full before the pour"
        value={figure.prefilled ?? false}
        take={(prefilled) => {
          set({ prefilled }, "brushed full");
        }}
      />
      {figure.vents?.length ? (
        <Pill
          onClick={() => {
            set({ vents: [] }, "vents of");
          }}
        >
          {figure.vents.length} vent{figure.vents.length > 1 ? "s" : ""}: close
        </Pill>
      ) : null}
    </Box>
  );
}
