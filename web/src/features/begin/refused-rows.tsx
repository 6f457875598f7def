import { Box } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Shelf } from "../../api/types";
import { useShelf } from "../../desk/shelf";
import { Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";

type Row = Shelf["notes"][number] & { kind: "resin" | "colourant" | "solid" };

/** Own rows that were taken once and no longer are: why, and the way to let them go. Nothing while there are none. */
export function RefusedRows() {
  const refused = useShelf()?.notes.filter((one) => one.refused) as Row[] | undefined;
  const queries = useQueryClient();
  const dropping = useMutation({
    mutationFn: ({ kind, id }: Row) =>
      ask(api.DELETE("/api/library/{kind}/{key}", { params: { path: { kind, key: id } } })),
    onSuccess: (next) => {
      queries.setQueryData(["library"], next);
    },
  });
  if (!refused?.length) return null;
  return (
    <Box marginTop="4">
      <Box>Of your own rows, these are no longer taken and are left out; what was made with them stays as it is.</Box>
      <Box as="ul" listStyleType="none" padding="0" margin="0">
        {refused.map((one) => (
          <Box as="li" key={`${one.kind} ${one.id}`} paddingY="3px">
            <b>{one.id}</b>: {one.refused}
            <Word
              aria-label={`let ${one.id} go`}
              disabled={dropping.isPending}
              onClick={() => {
                dropping.mutate(one);
              }}
            >
              let it go
            </Word>
          </Box>
        ))}
      </Box>
      <Problem>{dropping.error?.message}</Problem>
    </Box>
  );
}
