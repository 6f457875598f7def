import { Box, Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";
import { useSearchParams } from "react-router";

import { Word } from "./pill";

export interface OnePart {
  word: string;
  part: ReactNode;
}

/** Under this the address of the page says which part is open. */
export const PART = "part";

/** One screen of an inspector at a time; words at the top lead to the rest, and so does the page's address. */
export function Parts({ label, parts }: { label: string; parts: readonly OnePart[] }) {
  const [params, setParams] = useSearchParams();
  const open = parts.find((one) => one.word === params.get(PART)) ?? parts[0];
  // a part that was opened stays as it was left: what is typed there, and the long work it waits for
  const [seen, setSeen] = useState<readonly string[]>([]);
  if (open && !seen.includes(open.word)) setSeen([...seen, open.word]);
  return (
    <>
      <Flex
        role="group"
        aria-label={`Parts of ${label}`}
        wrap="wrap"
        columnGap="2"
        borderBottom="1px solid"
        borderColor="hair"
        paddingBottom="4px"
        marginBottom="6px"
      >
        {parts.map(({ word }) => (
          <Word
            key={word}
            paddingX="2px"
            aria-pressed={word === open?.word}
            fontWeight={word === open?.word ? 800 : 400}
            color={word === open?.word ? "ink" : "depth"}
            onClick={() => {
              setParams(
                (now) => {
                  now.set(PART, word);
                  return now;
                },
                { replace: true },
              );
            }}
          >
            {word}
          </Word>
        ))}
      </Flex>
      {parts.map(({ word, part }) =>
        word === open?.word || seen.includes(word) ? (
          <Box key={word} hidden={word !== open?.word}>
            {part}
          </Box>
        ) : null,
      )}
    </>
  );
}
