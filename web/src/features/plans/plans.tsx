import { Box, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";

import type { Front, Scene } from "../../api/types";
import { UnitsContext } from "../../desk/units";
import { Deed, Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { DaysBeside } from "./days";
import { Drawn } from "./drawn";
import { Find, useFront } from "./find";
import { FrontTable } from "./front-table";
import { Kept } from "./kept";
import { type Chosen, type Laid, useKept, useLaid, useOwn, useTold } from "./use-laid";

interface Asked {
  id: number;
  scene: Scene;
  /** takes a plan as the one that is worked on */
  take: (scene: Scene, name: string) => void;
}

const MOST_STOPS = 3;

/** Plans side by side: the own one, and one that was found or kept, on one depth axis and over the same days. */
export function Plans({ id, scene, take }: Asked) {
  const units = scene.brief.units ?? {};
  const [chosen, choose] = useState<Chosen | null>(null);
  const [again, setAgain] = useState(false);
  const finding = useFront(scene);
  const front = finding.of === scene ? finding.result : null;
  const first = front?.plans.find((one) => one.remedy !== null && one.clear);
  const shown = chosen ?? (first?.remedy ? { name: first.name, remedy: first.remedy } : null);
  const own = useOwn(id, scene);
  const other = useLaid(id, scene, shown);
  const told = useTold(scene, other.data?.scene);
  const kept = useKept(id);
  if (!own.data) return <Box color="soft">{own.error?.message ?? "Laying it out ..."}</Box>;
  const laid = other.data ?? null;
  return (
    <UnitsContext value={units}>
      <Drawn own={own.data} other={laid} newLines={told.data?.new_lines ?? []} units={units} />
      <Grid templateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) minmax(0, 560px)" }} gap="8">
        <Box>
          {laid ? <Said laid={laid} told={told.data} /> : <Find finding={finding} />}
          <Problem>{other.error?.message ?? told.error?.message}</Problem>
          {laid ? (
            <Deeds laid={laid} take={take} kept={kept} isKept={shown !== null && "kept" in shown} front={front} />
          ) : null}
        </Box>
        <Box>
          {front ? (
            <>
              <Box fontWeight={800} fontSize="18px" marginBottom="1">
                Plans on the front
              </Box>
              <FrontTable
                front={front}
                chosen={shown?.name ?? null}
                choose={(plan) => {
                  if (plan.remedy) choose({ name: plan.name, remedy: plan.remedy });
                }}
              />
              <Bound front={front} />
              <Word
                aria-expanded={again}
                onClick={() => {
                  setAgain(!again);
                }}
              >
                search with other goals or resins
              </Word>
              {again ? <Find finding={finding} /> : null}
            </>
          ) : null}
          {laid && !front ? <Find finding={finding} /> : null}
          <Kept
            kept={kept}
            chosen={shown?.name ?? null}
            choose={(name) => {
              choose({ name, kept: true });
            }}
          />
        </Box>
      </Grid>
      <Box marginTop="3">
        <DaysBeside own={own.data} other={laid} />
      </Box>
    </UnitsContext>
  );
}

type Told = ReturnType<typeof useTold>["data"];

function Said({ laid, told }: { laid: Laid; told: Told }) {
  return (
    <Box as="section" aria-label="What you gain and give" lineHeight="1.35">
      <Box fontWeight={800} fontSize="18px">
        What you gain and give, in “{laid.name}”
      </Box>
      {told ? (
        <>
          <Sentences words={told.gains} sign="+" />
          <Sentences words={told.gives} sign="−" />
          <Sentences words={told.same} sign="=" soft />
        </>
      ) : (
        <Box color="soft">Comparing ...</Box>
      )}
    </Box>
  );
}

function Sentences({ words, sign, soft }: { words: readonly string[]; sign: string; soft?: boolean }) {
  return (
    <Box as="ul" listStyleType="none" color={soft ? "soft" : "ink"}>
      {words.map((one) => (
        <Flex as="li" key={one} gap="2" paddingY="2px">
          <Box width="12px" flexShrink={0} fontWeight={800} color={sign === "−" ? "watch" : "set"} aria-hidden="true">
            {sign}
          </Box>
          {one}
        </Flex>
      ))}
    </Box>
  );
}

interface ToDo {
  laid: Laid;
  take: Asked["take"];
  kept: ReturnType<typeof useKept>;
  isKept: boolean;
  front: Front | null;
}

function Deeds({ laid, take, kept, isKept, front }: ToDo) {
  const plan = front?.plans.find((one) => one.name === laid.name);
  const known = isKept || kept.rows.some((row) => row.name === laid.name);
  return (
    <Box marginTop="3">
      {plan ? (
        <Box marginBottom="2" color="soft">
          {plan.reason} {plan.gives_up}
        </Box>
      ) : null}
      <Flex gap="2" wrap="wrap" align="center">
        <Deed
          onClick={() => {
            take(laid.scene, laid.name);
          }}
        >
          take this plan
        </Deed>
        <Pill
          disabled={known || kept.keep.isPending}
          onClick={() => {
            kept.keep.mutate({ name: laid.name, document: laid.scene });
          }}
        >
          {known ? "kept" : "keep both"}
        </Pill>
      </Flex>
      <Problem>{kept.keep.error?.message}</Problem>
    </Box>
  );
}

/** Where no way clears every stop: what binds, and which changes of the scene were tried. */
function Bound({ front }: { front: Front }) {
  if (front.binds.length === 0) {
    const own = front.plans.find((one) => one.key === "own");
    if (!own || own.stops.length === 0) return null;
    return (
      <Box color="soft" fontSize="14px" marginTop="1">
        Your plan: {own.stops.slice(0, MOST_STOPS).join("; ")}
        {own.stops.length > MOST_STOPS ? `; and ${own.stops.length - MOST_STOPS} more` : ""}.
      </Box>
    );
  }
  return (
    <Box role="group" aria-label="What binds" marginTop="3">
      <Box fontWeight={800}>No way clears every stop. What binds:</Box>
      <Sentences words={front.binds} sign="−" />
      <Box fontWeight={800} marginTop="2">
        Changes that were tried
      </Box>
      <Box as="ul" listStyleType="none">
        {front.frees.map((one) => (
          <Box as="li" key={one.words} color={one.clears ? "ink" : "soft"}>
            {one.words}: {one.clears ? "clears every stop" : `${one.stops_count} left`}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
