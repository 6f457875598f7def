import { useChoice } from "../../desk/choice";
import { useDocument } from "../../desk/document";
import { Box } from "@chakra-ui/react";

import { Row } from "../../ui/row";
import { massText, weighedText } from "../../units/display";

/** How the doses of the chosen pour are measured, and what a drop more or less does. */
export function Doses() {
  const { outcome, scene, units } = useDocument();
  const { pourNumber } = useChoice();
  const measured = outcome.pours[pourNumber - 1]?.cup.measured;
  if (!measured || measured.doses.length === 0) return null;
  const noteOf = (id: string) => scene.colourants?.find((ink) => ink.id === id)?.note ?? "";
  return (
    <Box marginTop="2" role="group" aria-label="As measured">
      <Box fontWeight={700}>
        As measured{" "}
        <Box as="span" fontWeight={400} color="soft" fontStyle="italic">
          for {massText(measured.batch_g, units)}
        </Box>
      </Box>
      {measured.doses.map((one) => (
        <Box key={one.colourant_id} borderBottom="1px solid" borderColor="wash" paddingY="3px" fontSize="14px">
          <Box display="flex" justifyContent="space-between" gap="2">
            <span>{one.name}</span>
            <b>
              {one.weighed ? massText(one.stock_g, units) : `${one.drops} drops`}
              {one.factor > 1 ? ` of 1:${one.factor}` : ""}
            </b>
          </Box>
          <Box color="soft">
            a drop more {one.more_de00.toFixed(1)}, less {one.less_de00.toFixed(1)}
            {one.factor > 1 ? `; ${one.recipe}` : ""}
          </Box>
          {one.risk ? <Box color="watch">{one.risk}</Box> : null}
          {noteOf(one.colourant_id) ? (
            <Box color="soft" fontStyle="italic">
              {noteOf(one.colourant_id)}
            </Box>
          ) : null}
        </Box>
      ))}
      <Box as="dl" margin="0">
        <Row label="rounding costs" hint="dE00 of a white card, worst of four depths">
          {measured.rounding_de00.toFixed(2)}
        </Row>
        <Row label="plain part A then" hint="what the stocks bring is left out">
          {weighedText(measured.plain_part_a_g, units)}
        </Row>
      </Box>
      <Box fontSize="14px" color="soft">
        {measured.cup_words}
      </Box>
    </Box>
  );
}
