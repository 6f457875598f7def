import { Box } from "@chakra-ui/react";

import type { BenchStep, RunNow } from "../../api/types";
import { clockFigure } from "./parts";

/** Two clocks at most, the caution of the step, and what follows. */
export function Side({
  step,
  now,
  done,
  at_ms,
  children,
}: {
  step: BenchStep | null;
  now: RunNow;
  done: readonly string[];
  at_ms: number;
  children?: React.ReactNode;
}) {
  const others = now.state.clocks.filter((one) => one.step_id !== step?.id && !done.includes(one.step_id)).slice(0, 2);
  return (
    <Box
      as="aside"
      width={{ base: "auto", lg: "340px" }}
      flexShrink="0"
      borderLeft={{ base: "none", lg: "2px solid" }}
      borderTop={{ base: "2px solid", lg: "none" }}
      borderColor="hair"
      paddingLeft={{ base: 0, lg: "28px" }}
      paddingTop={{ base: "12px", lg: 0 }}
      display="flex"
      flexDirection={{ base: "column", md: "row", lg: "column" }}
      gap="22px"
      flexWrap="wrap"
    >
      {others.map((one) => {
        const left = Date.parse(one.until_at) - at_ms;
        return (
          <Box key={`${one.pour_id}${one.step_id}`} flex={{ md: "1 1 220px", lg: "none" }}>
            <Box fontSize="22px" color="soft">
              {left > 0 ? "left of" : "over:"} {one.words}
            </Box>
            <Box
              fontSize={{ base: "44px", md: "64px" }}
              fontWeight={800}
              lineHeight="1"
              color={left > 0 ? "ink" : "caution"}
            >
              {left > 0 ? clockFigure(left) : "0:00"}
            </Box>
          </Box>
        );
      })}
      {children}
      {step?.caution ? (
        <Box
          flex={{ md: "1 1 220px", lg: "none" }}
          fontSize="20px"
          lineHeight="1.25"
          borderLeft="5px solid"
          borderColor="caution"
          paddingLeft="12px"
        >
          {step.caution}
        </Box>
      ) : null}
    </Box>
  );
}
