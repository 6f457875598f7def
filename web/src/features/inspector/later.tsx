import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { api } from "../../api/client";
import { refused } from "../../api/refusal";
import { Caution } from "../../ui/caution";
import { Word } from "../../ui/pill";
import { Row, Title } from "../../ui/row";
import { volumeText, weighedText, whenText } from "../../units/display";
import { useDesk } from "../workspace";

export function BenchInspector() {
  const { outcome, units, work } = useDesk();
  return (
    <>
      <Title>Bench</Title>
      <Box asChild color="depth" fontWeight={700} textDecoration="underline" fontSize="17px"><Link to={`/scenes/${work.id}/sheet`}>The pour sheet, to print</Link></Box>
      <Caution>Nitrile gloves, open window. Unset resin sensitises skin and lungs for life; follow the maker's safety data sheet.</Caution>
      {outcome.pours.map((pour) => (
        <Box key={pour.id} marginTop="3">
          <Box fontWeight={800}>Pour {pour.number} <Box as="span" fontWeight={400} color="soft" fontStyle="italic">{whenText(pour.starts_at)}</Box></Box>
          <Box as="dl" margin="0">
            <Row label="part A, plain" hint="what comes with the stocks of colour is left out; with them it is the part A of the pour">{weighedText(pour.measured.plain_part_a_g, units)}</Row>
            {pour.measured.plain_part_a_g < pour.mix.part_a_g - 0.05 ? <Row label="with the stocks">{weighedText(pour.mix.part_a_g, units)}</Row> : null}
            <Row label="part B">{weighedText(pour.mix.part_b_g, units)}</Row>
            <Row label="makes">{volumeText(pour.mix.mix_ml, units)}</Row>
          </Box>
        </Box>
      ))}
    </>
  );
}

export function LogInspector() {
  const { work } = useDesk();
  const log = useQuery({
    queryKey: ["revisions", work.id, work.document, work.saving.kind],
    staleTime: 0,
    queryFn: async () => {
      const { data, error, response } = await api.GET("/api/scenes/{scene_id}/revisions", { params: { path: { scene_id: work.id } } });
      if (data) return data;
      throw refused(error, response.status);
    },
  }).data;
  return (
    <>
      <Title aside="newest first">Revisions</Title>
      <Box asChild color="depth" textDecoration="underline"><a href={`/api/scenes/${work.id}/file`}>Scene file, to keep or hand on</a></Box>
      <Box as="ul" listStyleType="none" padding="0" margin="0" marginTop="2">
        {log?.map((row) => (
          <Box as="li" key={row.number} borderBottom="1px solid" borderColor="wash" paddingY="3px">
            <Box fontWeight={row.shown ? 800 : 400}>
              {row.number}. {row.note || "change"}{row.shown ? " (shown)" : ""}{row.kept_aside ? " (kept aside)" : ""}
            </Box>
            {row.shown ? null : <Word onClick={() => void work.step("restore", row.number)} aria-label={`Bring revision ${row.number} back`}>bring back</Word>}
          </Box>
        ))}
      </Box>
    </>
  );
}
