import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";
import { Word } from "../../ui/pill";
import { Title } from "../../ui/row";

/** Every revision, to be looked at and brought back. */
export function Revisions() {
  const { work } = useDocument();
  const log = useQuery({
    queryKey: ["revisions", work.id, work.document, work.saving.kind],
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/revisions", { params: { path: { scene_id: work.id } } })),
  }).data;
  return (
    <>
      <Title aside="newest first">Revisions</Title>
      <Box asChild color="depth" textDecoration="underline">
        <a href={`/api/scenes/${work.id}/file`}>Scene file, to keep or hand on</a>
      </Box>
      <Box as="ul" listStyleType="none" padding="0" margin="0" marginTop="2">
        {log?.map((row) => (
          <Box as="li" key={row.number} borderBottom="1px solid" borderColor="wash" paddingY="3px">
            <Box fontWeight={row.shown ? 800 : 400}>
              {row.number}. {row.note || "change"}
              {row.shown ? " (shown)" : ""}
              {row.kept_aside ? " (kept aside)" : ""}
            </Box>
            {row.shown ? null : (
              <Word
                onClick={() => void work.step("restore", row.number)}
                aria-label={`Bring revision ${row.number} back`}
              >
                bring back
              </Word>
            )}
          </Box>
        ))}
      </Box>
    </>
  );
}
