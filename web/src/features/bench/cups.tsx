import { Box } from "@chakra-ui/react";
import { Link } from "react-router";

import { useDocument } from "../../desk/document";
import { partText } from "../../desk/measures";
import { Caution } from "../../ui/caution";
import { Row, Title } from "../../ui/row";
import { volumeText, whenText } from "../../units/display";

/** What asks for more than one cup. */
const BINDS = {
  "": "",
  label: "as the label allows",
  cup: "as the largest cup holds",
  scale: "as the scale takes",
  heat: "so that none warms itself before it is poured",
} as const;

const zone = () => encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC");

/** What is carried away: the sheet to read or print, its steps as a table, the days for a calendar. */
function Carry({ id }: { id: number }) {
  const files = [
    [`/api/scenes/${id}/sheet.pdf`, "as PDF"],
    [`/api/scenes/${id}/sheet.csv`, "as CSV"],
    [`/api/scenes/${id}/calendar.ics?zone=${zone()}`, "the days, for a calendar"],
  ] as const;
  return (
    <Box lineHeight="1.7">
      <Box asChild color="depth" fontWeight={700} textDecoration="underline" fontSize="17px">
        <Link to={`/scenes/${id}/sheet`}>The pour sheet</Link>
      </Box>
      {files.map(([address, said]) => (
        <Box as="span" key={address}>
          ,{" "}
          <Box asChild color="depth" textDecoration="underline">
            <a href={address}>{said}</a>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** The bottles that are made once, and what each pour's cups hold. */
export function Cups() {
  const { outcome, scene, units, work } = useDocument();
  return (
    <>
      <Title>Cups</Title>
      <Carry id={work.id} />
      {outcome.stocks.length ? (
        <Box marginTop="3">
          <Box fontWeight={800}>One bottle of each colour, for every pour</Box>
          {outcome.stocks.map((one) => (
            <Box key={one.colourant_id} borderBottom="1px solid" borderColor="wash" paddingY="3px">
              {one.words}
            </Box>
          ))}
        </Box>
      ) : null}
      {outcome.pours.map((pour) => (
        <Box key={pour.id} marginTop="3">
          <Box fontWeight={800}>
            Pour {pour.number}{" "}
            <Box as="span" fontWeight={400} color="soft" fontStyle="italic">
              {whenText(pour.clock.starts_at)}
            </Box>
          </Box>
          <Box as="dl" margin="0">
            <Row
              label="part A, plain"
              hint="what comes with the stocks of colour is left out; with them it is the part A of the pour"
            >
              {partText(scene, units, pour.cup.measured.plain_part_a_g, pour.cup.measured.plain_part_a_ml)}
            </Row>
            {pour.cup.measured.plain_part_a_g < pour.cup.mix.part_a_g - 0.05 ? (
              <Row label="with the stocks">{partText(scene, units, pour.cup.mix.part_a_g, pour.cup.mix.part_a_ml)}</Row>
            ) : null}
            <Row label="part B">{partText(scene, units, pour.cup.mix.part_b_g, pour.cup.mix.part_b_ml)}</Row>
            <Row label="makes">{volumeText(pour.cup.mix.mix_ml, units)}</Row>
            {pour.cup.mix.cups_count > 1 ? (
              <Row label="cups">
                {pour.cup.mix.cups_count}, {BINDS[pour.cup.binds]}
              </Row>
            ) : null}
          </Box>
        </Box>
      ))}
      <Caution>
        Nitrile gloves, open window. Unset resin sensitises skin and lungs for life; follow the maker's safety data
        sheet.
      </Caution>
    </>
  );
}
