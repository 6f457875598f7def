import { Box, Flex } from "@chakra-ui/react";

import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { SEEN_INKS } from "../../desk/seen";
import { Row, Title } from "../../ui/row";
import { lengthText } from "../../units/display";

/** Below this a part adds nothing that an eye could tell. */
const LEAST_TOLD = 0.1;

/** How the line on top of the chosen pour shows from each side that is seen, and what draws it. */
export function Lines() {
  const { outcome, units } = useDocument();
  const { pourNumber } = useChoice();
  const line = outcome.lines.find((one) => one.pour_number === pourNumber);
  return (
    <Box role="group" aria-label="Lines">
      <Title>How its line shows</Title>
      {line ? (
        <>
          <Box color="soft" fontSize="14px">
            At {lengthText(line.depth_mm, units)}, where pour {pourNumber + 1} meets pour {pourNumber}.
          </Box>
          {line.sides.map((side) => (
            <Box key={side.side} marginTop="3">
              <Box as="dl" margin="0">
                <Row label={`from ${side.side === "above" ? "above" : `the ${side.side}`}`} known="line">
                  <Box as="span" color={SEEN_INKS[side.seen]}>
                    {side.words}
                  </Box>
                </Row>
              </Box>
              {side.parts
                .filter((part) => part.de00 >= LEAST_TOLD)
                .map((part) => (
                  <Flex key={part.name} gap="2" fontSize="14px" align="center">
                    <Box flex="1" color="soft">
                      {part.words}
                    </Box>
                    <Box width="70px" height="5px" bg="wash" aria-hidden="true">
                      <Box
                        height="5px"
                        bg={SEEN_INKS[side.seen] === "soft" ? "set" : SEEN_INKS[side.seen]}
                        style={{ width: `${(100 * part.de00) / Math.max(side.de00, 2)}%` }}
                      />
                    </Box>
                    <Box width="34px" textAlign="right">
                      {part.de00.toFixed(1)}
                    </Box>
                  </Flex>
                ))}
              {side.hidden_fraction >= 0.05 ? (
                <Box fontSize="14px" color="soft">
                  Figures stand before {Math.round(100 * side.hidden_fraction)} % of it.
                </Box>
              ) : null}
            </Box>
          ))}
        </>
      ) : (
        <Box color="soft">The last pour ends at the fill line: no line is left on it.</Box>
      )}
    </Box>
  );
}
