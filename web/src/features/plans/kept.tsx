import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import { Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import type { useKept } from "./use-laid";

/** Plans that were kept beside this one: laid beside it, named otherwise, let go. */
export function Kept({
  kept,
  chosen,
  choose,
}: {
  kept: ReturnType<typeof useKept>;
  chosen: string | null;
  choose: (name: string) => void;
}) {
  const [naming, setNaming] = useState<{ name: string; to: string } | null>(null);
  if (kept.rows.length === 0) return null;
  return (
    <Box role="group" aria-label="Kept plans" marginTop="3">
      <Box fontWeight={800}>Kept plans</Box>
      {kept.rows.map((row) => (
        <Flex key={row.name} gap="2" align="center" wrap="wrap" paddingY="2px">
          {naming?.name === row.name ? (
            <form
              onSubmit={(event) => {
                event.preventDefault();
                kept.rename.mutate(naming, {
                  onSuccess: () => {
                    setNaming(null);
                  },
                });
              }}
            >
              <input
                aria-label={`new name of ${row.name}`}
                value={naming.to}
                maxLength={80}
                style={{ border: "1px solid var(--ink)", padding: "2px 6px", background: "var(--plot)" }}
                onChange={(event) => {
                  setNaming({ ...naming, to: event.target.value });
                }}
              />
              <Word type="submit">call it so</Word>
            </form>
          ) : (
            <Pill
              tone="depth"
              aria-pressed={chosen === row.name}
              bg={chosen === row.name ? "wash" : "transparent"}
              onClick={() => {
                choose(row.name);
              }}
            >
              {row.name}
            </Pill>
          )}
          <Box color="soft" fontSize="14px">
            {row.pours_count === null
              ? "can no longer be opened"
              : `${String(row.pours_count)} ${row.pours_count === 1 ? "pour" : "pours"}`}
          </Box>
          <Word
            onClick={() => {
              setNaming({ name: row.name, to: row.name });
            }}
            aria-label={`rename ${row.name}`}
          >
            rename
          </Word>
          <Word
            onClick={() => {
              kept.letGo.mutate(row.name);
            }}
            aria-label={`let ${row.name} go`}
          >
            let it go
          </Word>
        </Flex>
      ))}
      <Problem>{kept.rename.error?.message ?? kept.letGo.error?.message}</Problem>
    </Box>
  );
}
