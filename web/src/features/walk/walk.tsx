import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";

import { useDocument } from "../../desk/document";
import { Pill, Word } from "../../ui/pill";
import { STEPS } from "./steps";

/** Walks through a first pour beside the sheet; it may be left at any step, and the sheet works all the while. */
export function Walk() {
  const { work } = useDocument();
  const go = useNavigate();
  const [params] = useSearchParams();
  const [at, setAt] = useState<number | null>(params.has("walk") ? 0 : null);
  if (at === null) return null;
  const step = STEPS[at];
  if (!step) return null;
  const to = (next: number) => {
    const one = STEPS[next];
    if (!one) return;
    setAt(next);
    void go(`/scenes/${work.id}/${one.stage}${one.part ? `?part=${encodeURIComponent(one.part)}` : ""}`);
  };
  return (
    <Box
      as="section"
      aria-label="A first pour"
      borderLeft="4px solid"
      borderColor="set"
      paddingLeft="10px"
      marginBottom="14px"
    >
      <Box fontWeight={800}>
        {step.title}{" "}
        <Box as="span" color="soft" fontWeight={400} fontStyle="italic">
          {at + 1} of {STEPS.length}
        </Box>
      </Box>
      <Box fontSize="14px" lineHeight="1.3" marginY="1">
        {step.text}
      </Box>
      <Flex gap="2" align="center">
        {at + 1 < STEPS.length ? (
          <Pill
            onClick={() => {
              to(at + 1);
            }}
          >
            next
          </Pill>
        ) : null}
        {at > 0 ? (
          <Word
            onClick={() => {
              to(at - 1);
            }}
          >
            back
          </Word>
        ) : null}
        <Word
          onClick={() => {
            setAt(null);
          }}
        >
          leave
        </Word>
      </Flex>
    </Box>
  );
}
