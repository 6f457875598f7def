import { Box } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { Word } from "../ui/pill";
import { Problem } from "../ui/problem";
import { Title } from "../ui/row";
import { dayText } from "../units/display";
import { PlainPage } from "./plain-page";

/** A piece whose kept state is no longer taken: why, its file as it is kept, and its earlier states. */
export function Unread({ id, why }: { id: number; why: string }) {
  const queries = useQueryClient();
  const at = { params: { path: { scene_id: id } } };
  const states = useQuery({
    queryKey: ["revisions", id],
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/revisions", at)),
  }).data;
  const shown = states?.find((one) => one.shown)?.number ?? 0;
  const back = useMutation({
    mutationFn: (number: number) =>
      ask(api.POST("/api/scenes/{scene_id}/restore", { ...at, body: { base_revision: shown, number } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["scene", id] }),
  });
  return (
    <PlainPage title="This piece cannot be opened as it stands">
      <Problem marginBottom="3">{why}</Problem>
      <Box maxWidth="66ch" marginBottom="5">
        Nothing of it is lost. Keep{" "}
        <Box asChild color="depth" textDecoration="underline">
          <a href={`/api/scenes/${String(id)}/file`}>its file, as it is kept</a>
        </Box>
        : once it is put right there, it can be brought in again. Or bring an earlier state back.
      </Box>
      <Title aside="newest first">Its states</Title>
      <Box as="ul" listStyleType="none" padding="0" margin="0" maxWidth="440px">
        {states?.map((one) => (
          <Box as="li" key={one.number} borderBottom="1px solid" borderColor="wash" paddingY="4px">
            {one.number}. {one.note || "change"}, {dayText(one.created_at)}
            {one.shown ? (
              " (shown)"
            ) : (
              <Word
                onClick={() => {
                  back.mutate(one.number);
                }}
                disabled={back.isPending}
                aria-label={`Bring state ${String(one.number)} back`}
              >
                bring back
              </Word>
            )}
          </Box>
        ))}
      </Box>
      <Problem marginTop="3">{back.error?.message}</Problem>
    </PlainPage>
  );
}
