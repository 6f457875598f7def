import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { Pill } from "../../ui/pill";
import { temperatureText } from "../../units/display";
import { Problem } from "../../ui/problem";

/** Why a pour gets so hot: each cause taken away and marched again. */
export function WhyHot() {
  const { scene, units } = useDocument();
  const { pourNumber } = useChoice();
  const asking = useMutation({
    mutationFn: async () => ({
      why: await ask(api.POST("/api/heat/why", { body: { scene, pour_number: pourNumber } })),
      of: scene,
    }),
  });
  const found = asking.data?.of === scene && asking.data.why.pour_number === pourNumber ? asking.data.why : null;
  return (
    <Box marginTop="2">
      <Pill
        onClick={() => {
          asking.mutate();
        }}
        loading={asking.isPending}
      >
        why so hot?
      </Pill>
      <Problem>{asking.error?.message}</Problem>
      {found ? (
        <Box role="group" aria-label="Why so hot" fontSize="14px" marginTop="1">
          <Box>{found.sentence}</Box>
          {found.causes
            .filter((cause) => cause.adds_k >= 0.5)
            .map((cause) => (
              <Box
                key={cause.name}
                display="flex"
                justifyContent="space-between"
                gap="2"
                borderBottom="1px solid"
                borderColor="wash"
              >
                <span>{cause.without}</span>
                <Box as="span" fontWeight={700} whiteSpace="nowrap">
                  {temperatureText(cause.peak_c, units)}
                </Box>
              </Box>
            ))}
        </Box>
      ) : null}
    </Box>
  );
}
