import { Box, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";

interface Option<T extends string> {
  value: T;
  word: string;
  drawn: ReactNode;
}

/** A choice by pictures; one of them is taken. */
export function Pick<T extends string>(props: {
  label: string;
  value: T;
  options: readonly Option<T>[];
  take: (value: T) => void;
}) {
  return (
    <Flex role="radiogroup" aria-label={props.label} wrap="wrap" gap="1" marginY="2">
      {props.options.map(({ value, word, drawn }) => {
        const taken = value === props.value;
        return (
          <Box
            asChild
            key={value}
            paddingX="4px"
            paddingTop="4px"
            paddingBottom="3px"
            textAlign="center"
            cursor="pointer"
            borderBottom="3px solid"
            borderColor={taken ? "ink" : "transparent"}
            fontWeight={taken ? 800 : 400}
            _hover={{ bg: "wash" }}
          >
            <button
              type="button"
              role="radio"
              aria-checked={taken}
              onClick={() => {
                props.take(value);
              }}
            >
              {drawn}
              <Box lineHeight="1.2">{word}</Box>
            </button>
          </Box>
        );
      })}
    </Flex>
  );
}
