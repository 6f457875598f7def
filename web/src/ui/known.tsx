import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";

import { ask } from "../api/ask";
import { api } from "../api/client";

/** All that the core can explain: numbers by their id, and words of the trade. */
export function useKnown() {
  return useQuery({ queryKey: ["known"], staleTime: Infinity, queryFn: () => ask(api.GET("/api/known")) }).data;
}

const PARTS = [
  ["formula", "computed as"],
  ["inputs", "from"],
  ["source", "after"],
  ["limits", "not told"],
  ["sure", "how sure"],
] as const;

/** How one number is known, in place. */
export function How({ id }: { id: string }) {
  const known = useKnown();
  const one = known?.numbers.find((each) => each.id === id);
  if (!one) return <Box color="soft">{known ? "Nothing is written of this yet." : "..."}</Box>;
  return (
    <Box borderLeft="3px solid" borderColor="depth" paddingLeft="2" marginY="1" fontSize="14px" lineHeight="1.3">
      {PARTS.map(([part, word]) => (
        <Box key={part}>
          <Box as="span" color="soft">
            {word}{" "}
          </Box>
          {one[part]}
        </Box>
      ))}
    </Box>
  );
}
