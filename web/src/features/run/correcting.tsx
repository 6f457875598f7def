import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";

import type { CupState, Units } from "../../api/types";
import { unitOf } from "../../units/table";
import { Target, Typed } from "./parts";
import { massFigure } from "./read";

/** A cup that is off: what puts it right, until when, and what it would leave. */
export function Correcting({
  cup,
  units,
  add,
}: {
  cup: CupState;
  units: Units;
  add: (part: "a" | "b", g: number) => void;
}) {
  const told = cup.correction;
  const [text, setText] = useState("");
  if (!told) return null;
  const takes = told.take_out_g > 0 && cup.part_b_g === 0;
  const wanted = told.add === null ? 0 : told.add_g;
  const given = text.trim() ? unitOf("mass", units).toDocument(Number(text.replace(",", "."))) : wanted;
  return (
    <Box
      borderLeft="6px solid"
      borderColor="caution"
      paddingLeft="16px"
      marginY="14px"
      role="alert"
      fontSize="22px"
      maxWidth="800px"
    >
      <Box fontWeight={800}>{told.do_words}</Box>
      <Box>{told.left_words}</Box>
      {told.add !== null && cup.part_b_g > 0 ? (
        <Flex gap="14px" align="center" marginTop="10px" wrap="wrap">
          <Typed
            label={`part ${told.add.toUpperCase()} added`}
            unit={units.mass === "oz" ? "oz" : "g"}
            value={text || massFigure(wanted, units)}
            set={setText}
          />
          <Target
            minHeight="72px"
            disabled={!Number.isFinite(given) || given <= 0}
            onClick={() => {
              add(told.add ?? "a", given);
              setText("");
            }}
          >
            it is in
          </Target>
        </Flex>
      ) : null}
      {takes ? (
        <Target
          minHeight="64px"
          marginTop="10px"
          onClick={() => {
            add("a", -told.take_out_g);
          }}
        >
          {`${massFigure(told.take_out_g, units)} ${units.mass === "oz" ? "oz" : "g"} of A taken out`}
        </Target>
      ) : null}
    </Box>
  );
}
