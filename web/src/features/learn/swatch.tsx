import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BottleWhole } from "../../api/types";
import { LengthField, NumberField } from "../../desk/fields";
import { useUnits } from "../../desk/units";
import { PickColour } from "../../ui/pick-colour";
import { Deed, Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice } from "../../ui/row";
import { lengthText } from "../../units/display";

interface PatchTyped {
  depth_mm: number;
  dose_drops_per_100g: number;
  card: "white" | "grey" | "black";
  srgb: string;
}
const FIRST: PatchTyped[] = [5, 12, 25, 40].map((depth_mm) => ({
  depth_mm,
  dose_drops_per_100g: 2,
  card: "white",
  srgb: "#ffffff",
}));
const WIDE = 216;

/** Patches of a colourant, picked in a photograph with white and grey beside them, or typed. */
export function Swatch({ colourant, heard }: { colourant: string; heard: (whole: BottleWhole) => void }) {
  const units = useUnits();
  const [patches, setPatches] = useState(FIRST);
  const [cards, setCards] = useState<{ white: string | null; grey: string | null }>({ white: null, grey: null });
  const [target, setTarget] = useState("0");
  const body = () => ({
    colourant_id: colourant,
    read: { patches, white_srgb: cards.white, grey_srgb: cards.grey, by: "camera" as const },
  });
  const fit = useMutation({ mutationFn: () => ask(api.POST("/api/learn/swatch", { body: body() })) });
  const keep = useMutation({
    mutationFn: () => ask(api.POST("/api/bottles/swatches", { body: body() })),
    onSuccess: heard,
  });
  const put = (at: number, change: Partial<PatchTyped>) => {
    setPatches(patches.map((one, index) => (index === at ? { ...one, ...change } : one)));
    fit.reset();
  };
  const take = (srgb: string) => {
    if (target === "white" || target === "grey") setCards({ ...cards, [target]: srgb });
    else put(Number(target), { srgb });
    const order = [...patches.map((_, at) => String(at)), "white", "grey"];
    setTarget(order[Math.min(order.indexOf(target) + 1, order.length - 1)] ?? "grey");
  };
  return (
    <Box role="group" aria-label="A swatch">
      <Choice
        label="next press is"
        value={target}
        options={[
          ...patches.map((one, at) => [String(at), `patch ${at + 1}, ${lengthText(one.depth_mm, units)}`] as const),
          ["white", "the white card"],
          ["grey", "the grey card"],
        ]}
        take={setTarget}
      />
      <PickColour
        label="Photograph of the swatch"
        picture="Photograph of the swatch, to pick from"
        width={WIDE}
        around={3}
        take={take}
      >
        bring a photograph of the patches
      </PickColour>
      {patches.map((one, at) => (
        <Box key={at} borderLeft="14px solid" style={{ borderLeftColor: one.srgb }} paddingLeft="6px" marginTop="4px">
          <LengthField
            label={`patch ${at + 1}, depth`}
            value={one.depth_mm}
            take={(depth_mm) => {
              put(at, { depth_mm });
            }}
          />
          <NumberField
            label="drops per 100 g"
            value={one.dose_drops_per_100g}
            take={(dose_drops_per_100g) => {
              put(at, { dose_drops_per_100g });
            }}
          />
          <Box asChild fontSize="14px">
            <input
              aria-label={`Colour of patch ${at + 1}`}
              value={one.srgb}
              maxLength={7}
              size={8}
              onChange={(event) => {
                put(at, { srgb: event.target.value });
              }}
            />
          </Box>
        </Box>
      ))}
      <Pill
        marginTop="2"
        loading={fit.isPending}
        onClick={() => {
          fit.mutate();
        }}
      >
        what does it tell?
      </Pill>
      <Problem>{fit.error?.message ?? keep.error?.message}</Problem>
      {fit.data ? (
        <Box role="status">
          {fit.data.words.join(" ")}
          <Deed
            marginTop="2"
            loading={keep.isPending}
            onClick={() => {
              keep.mutate();
            }}
          >
            Teach the bottle
          </Deed>
        </Box>
      ) : null}
    </Box>
  );
}
