import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Candidate, Explanation, Units } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Title } from "../../ui/row";
import { forceText, temperatureText, volumeText } from "../../units/display";

/** Why it went wrong: the likeliest cause first, what speaks for it and against it, and what can be done. */
export function ExplainPart() {
  const { work, units } = useDocument();
  const [struck, strike] = useState<readonly string[]>([]);
  const told = useQuery({
    queryKey: ["explain", work.id, struck],
    staleTime: 0,
    retry: false,
    placeholderData: (before) => before,
    queryFn: () =>
      ask(
        api.POST("/api/scenes/{scene_id}/explain", {
          params: { path: { scene_id: work.id } },
          body: { struck: [...struck] },
        }),
      ),
  });
  if (told.error) return <Problem color="ink">{told.error.message}</Problem>;
  if (!told.data) return <Box color="soft">Running again what happened, with and without each cause ...</Box>;
  const { candidates } = told.data;
  const shown = candidates.filter((one) => !one.struck && (one.probability >= 0.02 || one.id === candidates[0]?.id));
  return (
    <>
      <Title>Why</Title>
      <Box role="status" fontWeight={700}>
        {told.data.words}
      </Box>
      {shown.map((one, at) => (
        <OneCause
          key={one.id}
          cause={one}
          open={at === 0}
          units={units}
          strike={() => {
            strike([...struck, one.id]);
          }}
        />
      ))}
      {struck.length > 0 ? (
        <Word
          paddingLeft="0"
          onClick={() => {
            strike([]);
          }}
        >
          put back what was struck out
        </Word>
      ) : null}
      <Deciding told={told.data} />
      <Repairs told={told.data} units={units} />
    </>
  );
}

function OneCause({
  cause,
  open,
  units,
  strike,
}: {
  cause: Candidate;
  open: boolean;
  units: Units;
  strike: () => void;
}) {
  const [shown, show] = useState(open);
  return (
    <Box borderBottom="1px solid" borderColor="wash" paddingY="4px">
      <Word
        paddingLeft="0"
        fontWeight={shown ? 800 : 400}
        aria-expanded={shown}
        onClick={() => {
          show(!shown);
        }}
      >
        {cause.name}, {Math.min(99, Math.round(100 * cause.probability))} in 100
      </Word>
      {shown ? (
        <Box paddingLeft="10px">
          {cause.speaks.map((said) => (
            <Box key={said}>For it: {said}</Box>
          ))}
          {cause.against.map((said) => (
            <Box key={said}>Against it: {said}</Box>
          ))}
          {cause.open.map((said) => (
            <Box key={said} color="soft">
              Not known: {said}
            </Box>
          ))}
          {cause.with_it !== null && cause.without_it !== null && cause.with_it !== cause.without_it ? (
            <Box fontStyle="italic" color="depth">
              as it happened {told(cause.with_it, cause.quantity, units)}, without it{" "}
              {told(cause.without_it, cause.quantity, units)}
            </Box>
          ) : null}
          {cause.next_time ? <Box>Next time: {cause.next_time}</Box> : null}
          {cause.id === "other" ? null : (
            <Word paddingLeft="0" aria-label={`Strike out ${cause.name}`} onClick={strike}>
              it was not that
            </Word>
          )}
        </Box>
      ) : null}
    </Box>
  );
}

/** Above this a march cannot tell how hot it gets. */
const RUNAWAY_C = 100;

/** A number with its unit. */
function told(value: number, quantity: string, units: Units): string {
  if (quantity === "temperature")
    return value > RUNAWAY_C ? `over ${temperatureText(RUNAWAY_C, units)}` : temperatureText(value, units);
  if (quantity === "volume") return volumeText(value, units);
  if (quantity === "force") return forceText(value, units);
  if (quantity === "percent") return `${(100 * value).toFixed(0)} %`;
  if (quantity === "hours") return `${value.toFixed(0)} h`;
  return value.toPrecision(3);
}

function Deciding({ told: { decides } }: { told: Explanation }) {
  if (decides.length === 0) return null;
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>What would decide</Box>
      {decides.map((said) => (
        <Box key={said}>{said}</Box>
      ))}
    </Box>
  );
}

function Repairs({ told: { repairs }, units }: { told: Explanation; units: Units }) {
  return (
    <Box marginTop="3">
      <Box fontWeight={800}>What can be mended</Box>
      {repairs.map((one) => (
        <Box key={one.words} marginTop="2px">
          {one.words}
          {one.peak_c !== null && one.peak_c > 40 ? ` Its cup comes to ${temperatureText(one.peak_c, units)}.` : ""}
        </Box>
      ))}
    </Box>
  );
}
