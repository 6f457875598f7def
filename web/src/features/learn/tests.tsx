import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";
import { Problem } from "../../ui/problem";

/** What tests of a bottle would tell of this scene, before any is made; the most for an hour of work first. */
export function TestsAhead({ resin }: { resin: string }) {
  const { outcome, outcomeOf } = useDocument();
  const told = useQuery({
    queryKey: ["tests ahead", resin, outcome.scene_digest],
    staleTime: Infinity,
    queryFn: () => ask(api.POST("/api/learn/tests", { body: { document: outcomeOf, resin_id: resin } })),
  });
  if (told.error) return <Problem>{told.error.message}</Problem>;
  if (!told.data) return <Box color="soft">Reckoning what tests would tell ...</Box>;
  return (
    <Box as="ol" margin="0" paddingLeft="18px">
      {told.data.map((test) => (
        <Box as="li" key={`${test.mass_g} ${test.wrap_mm}`} marginTop="6px">
          {test.words}
          <Box color="soft" fontSize="14px">
            warmest {test.peak_c.toFixed(0)} °C; hours surely in the window of pour {test.pour_number}:{" "}
            {sure(test.now.sure_h)} now, {sure(test.after.sure_h)} then
          </Box>
          {test.warning ? (
            <Box color="caution" fontSize="14px">
              {test.warning}
            </Box>
          ) : null}
        </Box>
      ))}
    </Box>
  );
}

const sure = (hours: number | null) => (hours === null ? "not told" : hours <= 0 ? "none" : `${hours.toFixed(1)} h`);
