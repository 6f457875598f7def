import { Flex } from "@chakra-ui/react";
import { type ReactNode, useState } from "react";

import { Word } from "./pill";

export interface OnePart {
  word: string;
  part: ReactNode;
}

/** One screen of an inspector at a time; words at the top lead to the rest. */
export function Parts({ label, parts }: { label: string; parts: readonly OnePart[] }) {
  const [chosen, choose] = useState<string | null>(null);
  const open = parts.find((one) => one.word === chosen) ?? parts[0];
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
              choose(word);
            }}
          >
            {word}
          </Word>
        ))}
      </Flex>
      {open?.part}
    </>
  );
}
