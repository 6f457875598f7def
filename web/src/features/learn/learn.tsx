import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { BottleWhole } from "../../api/types";
import { useDocument } from "../../desk/document";
import { NumberField } from "../../desk/fields";
import { useShelf } from "../../desk/shelf";
import { Pill } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice, Title } from "../../ui/row";
import { Bottle } from "./bottle";
import { CupTest } from "./cup";
import { FromRun } from "./from-run";
import { Swatch } from "./swatch";
import { TestsAhead } from "./tests";
import { useBottle } from "./use-bottle";

/** A bottle of resin: what is held of it, the cup that teaches it, the pour that does, and what tests would tell. */
export function LearnResin() {
  const { scene } = useDocument();
  const poured = scene.resins.filter((one) => !one.light && scene.pours.some((pour) => pour.resin_id === one.id));
  const [chosen, choose] = useState<string | null>(null);
  const resin = chosen ?? poured[0]?.id ?? "";
  const { held, taught, refused, again } = useBottle("resin", resin);
  return (
    <>
      <Title aside="over its row">What this bottle taught</Title>
      <Choice label="bottle" value={resin} options={poured.map((one) => [one.id, one.name] as const)} take={choose} />
      <Problem>{refused}</Problem>
      {held ? <Bottle {...held} /> : null}
      <Box marginTop="4">
        <Title aside="the most for an hour of work first">Which test?</Title>
        <TestsAhead resin={resin} />
      </Box>
      <Box marginTop="4">
        <Title>A cup</Title>
        <CupTest resin={resin} heard={taught} />
      </Box>
      <Box marginTop="4">
        <Title>A pour</Title>
        <FromRun
          heard={() => {
            void again();
          }}
        />
      </Box>
    </>
  );
}

/** A bottle of colour: its swatch and its drops. */
export function LearnColour() {
  const { scene } = useDocument();
  const shelf = useShelf();
  const inks = scene.colourants.length > 0 ? scene.colourants : (shelf?.colourants ?? []);
  const [chosen, choose] = useState<string | null>(null);
  const ink = chosen ?? inks[0]?.id ?? "";
  const { held, taught, refused } = useBottle("colourant", ink);
  return (
    <>
      <Title>Colour, as this bottle has it</Title>
      <Choice label="bottle" value={ink} options={inks.map((one) => [one.id, one.name] as const)} take={choose} />
      <Problem>{refused}</Problem>
      {held ? <Bottle {...held} /> : null}
      <Box marginTop="4">
        <Title aside="four depths at one dose tell most">A swatch</Title>
        <Swatch key={ink} colourant={ink} heard={taught} />
      </Box>
      <Box marginTop="4">
        <Title>Drops on a scale</Title>
        <Drops colourant={ink} heard={taught} />
      </Box>
    </>
  );
}

function Drops({ colourant, heard }: { colourant: string; heard: (whole: BottleWhole) => void }) {
  const [weighed, setWeighed] = useState({ drops_count: 20, mass_g: 0.8, scale_step_g: 0.01 });
  const keep = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/bottles/drops", {
          body: {
            colourant_id: colourant,
            weighed: {
              drops_count: weighed.drops_count,
              masses_g: [weighed.mass_g],
              scale_step_g: weighed.scale_step_g,
            },
          },
        }),
      ),
    onSuccess: heard,
  });
  return (
    <>
      <NumberField
        label="drops"
        value={weighed.drops_count}
        take={(drops_count) => {
          setWeighed({ ...weighed, drops_count: Math.round(drops_count) });
        }}
      />
      <NumberField
        label="weigh"
        unit="g"
        value={weighed.mass_g}
        take={(mass_g) => {
          setWeighed({ ...weighed, mass_g });
        }}
      />
      <Pill
        marginTop="1"
        loading={keep.isPending}
        onClick={() => {
          keep.mutate();
        }}
      >
        teach the bottle its drops
      </Pill>
      <Problem>{keep.error?.message}</Problem>
    </>
  );
}
