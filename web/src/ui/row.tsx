import { Box, Flex, Heading, Input, NativeSelect } from "@chakra-ui/react";
import { type ReactNode, useId, useState } from "react";

import { How } from "./known";

/** A line of the inspector: a word on the left, its value on the right; a press on a known value tells how it is known. */
export function Row(props: { label: string; children: ReactNode; hint?: string; known?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Flex
      justify="space-between"
      align="baseline"
      gap="2"
      rowGap="0"
      wrap="wrap"
      borderBottom="1px solid"
      borderColor="wash"
      paddingY="3px"
      title={props.hint}
    >
      <Box as="dt" color="soft">
        {props.label}
      </Box>
      <Box as="dd" fontWeight={700} textAlign="right" margin="0" marginLeft="auto">
        {props.known ? (
          <Box asChild cursor="help" textAlign="right" _hover={{ textDecoration: "underline dotted" }}>
            <button
              type="button"
              aria-expanded={open}
              title="how is this known?"
              onClick={() => {
                setOpen(!open);
              }}
            >
              {props.children}
            </button>
          </Box>
        ) : (
          props.children
        )}
      </Box>
      {props.known && open ? (
        <Box as="dd" margin="0" width="100%">
          <How id={props.known} />
        </Box>
      ) : null}
    </Flex>
  );
}

export function Title(props: { children: ReactNode; aside?: ReactNode }) {
  return (
    <Flex align="baseline" columnGap="3" wrap="wrap" marginBottom="1">
      <Heading as="h2" fontSize="18px" fontWeight={800} lineHeight="1.3">
        {props.children}
      </Heading>
      {props.aside ? (
        <Box color="soft" fontStyle="italic">
          {props.aside}
        </Box>
      ) : null}
    </Flex>
  );
}

/**
 * A value that can be typed, with its unit, taken when the person leaves it or presses Enter.
 * What cannot be read is said beside it and kept in the field.
 */
export function Entry(props: {
  label: string;
  shown: string;
  read: (text: string) => Promise<number>;
  take: (value: number) => void;
  example: string;
}) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const finish = () => {
    if (typed === null || typed === props.shown) {
      setTyped(null);
      return;
    }
    props.read(typed).then(
      (value) => {
        setTyped(null);
        setWrong(null);
        props.take(value);
      },
      (flaw: unknown) => {
        setWrong(flaw instanceof Error ? flaw.message : `Not understood; write it like ${props.example}.`);
      },
    );
  };
  return (
    <Box borderBottom="1px solid" borderColor="wash" paddingY="2px">
      <Flex justify="space-between" align="baseline" gap="2">
        <label htmlFor={id}>
          <Box as="span" color="soft">
            {props.label}
          </Box>
        </label>
        <Input
          id={id}
          value={typed ?? props.shown}
          onChange={(event) => {
            setTyped(event.target.value);
          }}
          onBlur={finish}
          onKeyDown={(event) => {
            if (event.key === "Enter") finish();
            if (event.key === "Escape") {
              setTyped(null);
              setWrong(null);
            }
          }}
          aria-invalid={wrong !== null}
          variant="flushed"
          height="22px"
          width="104px"
          textAlign="right"
          fontSize="15px"
          fontWeight={700}
          padding="0"
          borderColor="hair"
          borderBottomWidth="1px"
          borderStyle="dotted"
        />
      </Flex>
      {wrong === null ? null : (
        <Box color="caution" fontSize="14px" role="alert">
          {wrong}
        </Box>
      )}
    </Box>
  );
}

export function Choice(props: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  take: (value: string) => void;
}) {
  const id = useId();
  return (
    <Flex justify="space-between" align="baseline" gap="2" borderBottom="1px solid" borderColor="wash" paddingY="2px">
      <label htmlFor={id}>
        <Box as="span" color="soft" whiteSpace="nowrap">
          {props.label}
        </Box>
      </label>
      <NativeSelect.Root size="xs" width="auto" variant="plain">
        <NativeSelect.Field
          id={id}
          value={props.value}
          onChange={(event) => {
            props.take(event.target.value);
          }}
          fontSize="15px"
          fontWeight={700}
          height="22px"
          paddingStart="0"
          paddingEnd="5"
          textAlign="right"
          color="ink"
          bg="transparent"
        >
          {props.options.map(([key, word]) => (
            <option key={key} value={key}>
              {word}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator color="soft" />
      </NativeSelect.Root>
    </Flex>
  );
}

export function Tick(props: { label: string; value: boolean; take: (value: boolean) => void }) {
  const id = useId();
  return (
    <Flex justify="space-between" align="center" borderBottom="1px solid" borderColor="wash" paddingY="3px">
      <label htmlFor={id}>
        <Box as="span" color="soft">
          {props.label}
        </Box>
      </label>
      <input
        id={id}
        type="checkbox"
        checked={props.value}
        onChange={(event) => {
          props.take(event.target.checked);
        }}
      />
    </Flex>
  );
}
