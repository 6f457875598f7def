import { Box, Heading } from "@chakra-ui/react";

import { Coming } from "./coming";
import { Correcting } from "./correcting";
import { MORE } from "./entered";
import { Entries, type Entering } from "./entries";
import { clockFigure } from "./parts";
import { event } from "./telling";
import type { FollowedRun } from "./use-run";

/** The one thing to do now: its words, its clock, what is entered, and what puts a cup right. */
export function Doing({ run, left, ...entering }: Entering & { run: FollowedRun; left: number | null }) {
  const { step, now, units } = entering;
  const off = now.state.cups.filter((one) => one.correction && one.pour_id === step.pour_id && one.cup === step.cup);
  return (
    <>
      <Heading as="h1" fontSize={{ base: "40px", md: "64px" }} fontWeight={800} lineHeight="1.05">
        {step.title}
      </Heading>
      <Box fontSize={{ base: "22px", md: "28px" }} color="soft" marginTop="4px" marginBottom="18px" maxWidth="30em">
        {step.under}
      </Box>
      {left !== null ? (
        <Box
          fontSize={{ base: "84px", md: "140px" }}
          fontWeight={800}
          lineHeight="1"
          role="timer"
          color={left > 0 ? "ink" : "caution"}
        >
          {left > 0 ? clockFigure(left) : "now"}
        </Box>
      ) : null}
      {step.asks === "feels" ? <Coming now={now} reload={run.reload} /> : null}
      <Entries {...entering} />
      {[...now.state.dark.map((one) => one.words), ...(now.state.top_up ? [now.state.top_up.words] : [])].map(
        (said) => (
          <Box
            key={said}
            role="alert"
            borderLeft="6px solid"
            borderColor="watch"
            paddingLeft="16px"
            marginY="14px"
            fontSize="22px"
            maxWidth="800px"
          >
            {said}
          </Box>
        ),
      )}
      {off.map((one) => (
        <Correcting
          key={`${one.pour_id}${one.cup}`}
          cup={one}
          units={units}
          add={(part, mass_g) => {
            const cup = { pour_id: one.pour_id, cup: one.cup, part, mass_g: Math.round(mass_g * 1000) / 1000 };
            void run.tell([event(run.teller, `${one.pour_id}:cup${one.cup}:${part}${MORE}`, "weighed", cup)]);
          }}
        />
      ))}
    </>
  );
}
