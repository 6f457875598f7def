import { Box } from "@chakra-ui/react";

/** Where the numbers beside it come from: formula and assumption, a sentence each, a click away. */
export function Sources({ children }: { children: readonly (readonly [string, string])[] }) {
  return (
    <Box asChild marginTop="4" fontSize="14px">
      <details>
        <Box asChild color="depth" cursor="pointer" minHeight="24px">
          <summary>where these come from</summary>
        </Box>
        {children.map(([word, source]) => (
          <Box key={word} marginTop="1">
            <Box as="span" fontWeight={700}>
              {word}:{" "}
            </Box>
            {source}
          </Box>
        ))}
      </details>
    </Box>
  );
}
