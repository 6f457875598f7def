import { Box, Flex } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";

import { ask } from "../api/ask";
import { api } from "../api/client";
import type { SceneRow } from "../api/types";
import { Word } from "../ui/pill";
import { Problem } from "../ui/problem";
import { dayText } from "../units/display";

const SeenBySheet = lazy(() => import("./seen-by-sheet"));

/** Asks anew which pieces stand here, and which were deleted. */
function useAnew() {
  const queries = useQueryClient();
  return () => Promise.all(["scenes", "gone"].map((key) => queries.invalidateQueries({ queryKey: [key] })));
}

/** Whose piece it is; and for one's own, who sees it, and the way to be rid of it. */
export function Deeds({ scene }: { scene: SceneRow }) {
  const anew = useAnew();
  const [sharing, share] = useState(false);
  const deleting = useMutation({
    mutationFn: () => ask(api.DELETE("/api/scenes/{scene_id}", { params: { path: { scene_id: scene.id } } })),
    onSuccess: anew,
  });
  if (scene.may !== "own")
    return (
      <Box color="soft">
        {scene.owner}’s; you may {scene.may === "look" ? "look at it" : "work on it"}.
      </Box>
    );
  return (
    <Flex gap="3" color="soft">
      <Word
        color="soft"
        paddingLeft="0"
        aria-label={`Share ${scene.name}`}
        onClick={() => {
          share(true);
        }}
      >
        share
      </Word>
      <Word
        color="soft"
        aria-label={`Delete ${scene.name}`}
        title="gone at once; it can be brought back for a day"
        disabled={deleting.isPending}
        onClick={() => {
          deleting.mutate();
        }}
      >
        delete
      </Word>
      <Problem>{deleting.error?.message}</Problem>
      {sharing ? (
        <Suspense fallback={null}>
          <SeenBySheet
            sceneId={scene.id}
            name={scene.name}
            close={() => {
              share(false);
            }}
          />
        </Suspense>
      ) : null}
    </Flex>
  );
}

/** What was deleted and can still be brought back. */
export function Gone() {
  const anew = useAnew();
  const gone = useQuery({ queryKey: ["gone"], queryFn: () => ask(api.GET("/api/scenes/gone")) });
  const bringing = useMutation({
    mutationFn: (id: number) =>
      ask(api.POST("/api/scenes/gone/{scene_id}/back", { params: { path: { scene_id: id } } })),
    onSuccess: anew,
  });
  if (!gone.data?.length) return null;
  return (
    <Box as="section" aria-label="Deleted" marginTop="36px" borderTop="1px solid" borderColor="hair" paddingTop="10px">
      {gone.data.map((one) => (
        <Flex key={one.id} gap="3" align="baseline" role="status">
          <Box color="soft">
            {one.name} was deleted; it can be brought back until {dayText(one.until)}.
          </Box>
          <Word
            aria-label={`Bring ${one.name} back`}
            textDecoration="underline"
            onClick={() => {
              bringing.mutate(one.id);
            }}
          >
            bring it back
          </Word>
        </Flex>
      ))}
      <Problem>{bringing.error?.message}</Problem>
    </Box>
  );
}
