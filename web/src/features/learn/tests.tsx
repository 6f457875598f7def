import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { TestTold, Units } from "../../api/types";
import { useDocument } from "../../desk/document";
import { Problem } from "../../ui/problem";
import { temperatureText } from "../../units/display";

/** What tests of a bottle would tell of this scene, before any is made; the most for an hour of work first. */
export function TestsAhead({ resin }: { resin: string }) {
  const { outcome, outcomeOf, units } = useDocument();
  const told = useQuery({
    queryKey: ["tests ahead", resin, outcome.scene_digest],
    staleTime: Infinity,
    queryFn: () => ask(api.POST("/api/learn/tests", { body: { document: outcomeOf, resin_id: resin } })),
  });
  if (told.error) return <Problem>{told.error.message}</Problem>;
  if (!told.data) return <Box color="soft">Reckoning what tests would tell ...</Box>;
  const [first, ...rest] = told.data;
  if (!first) return <Box color="soft">No cup of it can be made safely, or it sets by light.</Box>;
  return (
    <>
      <One test={first} units={units} />
      {rest.length > 0 ? (
        <details>
          <Box asChild cursor="pointer" color="depth" minHeight="25px">
            <summary>
              {rest.length} {rest.length === 1 ? "other" : "others"}
            </summary>
          </Box>
          {rest.map((test) => (
            <One key={`${test.mass_g} ${test.wrap_mm}`} test={test} units={units} />
          ))}
        </details>
      ) : null}
    </>
  );
}

function One({ test, units }: { test: TestTold; units: Units }) {
  return (
    <Box marginTop="6px">
      {test.words}
      <Box color="soft" fontSize="14px">
        warmest {temperatureText(test.peak_c, units)}; hours surely in the window of pour {test.pour_number}:{" "}
        {sure(test.now.sure_h)} now, {sure(test.after.sure_h)} then
      </Box>
      {test.warning ? (
        <Box color="caution" fontSize="14px">
          {test.warning}
        </Box>
      ) : null}
    </Box>
  );
}

const sure = (hours: number | null) => (hours === null ? "not told" : hours <= 0 ? "none" : `${hours.toFixed(1)} h`);
