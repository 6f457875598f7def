import { Box, Grid, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api, readIn } from "../../api/client";
import type { Usual } from "../../api/types";
import { HabitsFields } from "../../desk/habits";
import { UnitsContext } from "../../desk/units";
import { Problem } from "../../ui/problem";
import { type Answers, FIRST } from "./answers";
import { AtHand, ReadIn, Room } from "./questions";
import { RefusedRows } from "./refused-rows";

/** What a person has and does in every piece: said once, begun with each time, over-ridden in any scene. */
export function WhatYouHave() {
  const usual = useQuery({ queryKey: ["usual"], queryFn: () => ask(api.GET("/api/usual")) });
  if (!usual.data) return <Box color="soft">{usual.error?.message ?? "Looking what you have ..."}</Box>;
  return <Kept usual={usual.data} />;
}

function Kept({ usual }: { usual: Usual }) {
  const queries = useQueryClient();
  const [now, setNow] = useState(usual);
  const keeping = useMutation({
    mutationFn: (body: Usual) => ask(api.PUT("/api/usual", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["usual"] }),
  });
  const units = now.units;
  readIn(units);
  const answers: Answers = { ...FIRST, usual: now };
  const take = (change: Partial<Answers>) => {
    if (!change.usual) return;
    setNow(change.usual);
    keeping.mutate(change.usual);
  };
  return (
    <UnitsContext value={units}>
      <Box color="soft" maxWidth="64ch" marginBottom="4">
        A new piece begins with these. Scenes that are there keep their own, and any of it can be another in one scene.
      </Box>
      <Grid templateColumns={{ base: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" }} gap="48px">
        <Box as="section" aria-label="At hand">
          <Heading as="h2" fontSize="18px" fontWeight={800}>
            At hand
          </Heading>
          <AtHand answers={answers} take={take} />
          <RefusedRows />
        </Box>
        <Box as="section" aria-label="Hours and room">
          <Heading as="h2" fontSize="18px" fontWeight={800}>
            Hours and room
          </Heading>
          <Room answers={answers} take={take} />
          <ReadIn answers={answers} take={take} />
          <Heading as="h2" fontSize="18px" fontWeight={800} marginTop="6">
            How you mix
          </Heading>
          <HabitsFields
            habits={now.habits ?? {}}
            take={(habits) => {
              take({ usual: { ...now, habits } });
            }}
          />
        </Box>
      </Grid>
      <Box role="status" color="soft" fontStyle="italic" marginTop="4">
        {keeping.isPending ? "keeping ..." : keeping.isSuccess ? "kept" : ""}
      </Box>
      <Problem>{keeping.error?.message}</Problem>
    </UnitsContext>
  );
}
