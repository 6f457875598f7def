import { Box } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useDocument } from "../../desk/document";

const MOST = 3;

/** Lessons of other pieces that are pinned to what this plan uses. */
export function LearntBefore() {
  const { work, scene } = useDocument();
  const met = useQuery({
    queryKey: ["lessons met", work.id, scene.pours.map((pour) => pour.resin_id), scene.tank.wall.material.id],
    staleTime: 30_000,
    retry: false,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/lessons", { params: { path: { scene_id: work.id } } })),
  }).data;
  if (!met || met.length === 0) return null;
  return (
    <details>
      <Box asChild cursor="pointer" color="depth" minHeight="25px">
        <summary>
          {met.length} {met.length === 1 ? "lesson" : "lessons"} from other pieces
        </summary>
      </Box>
      {met.slice(0, MOST).map((one) => (
        <Box key={one.id} marginTop="4px">
          {one.text}{" "}
          <Box asChild color="depth" fontSize="14px">
            <Link to={`/scenes/${one.scene_id}/log`}>{one.scene_name}</Link>
          </Box>
        </Box>
      ))}
    </details>
  );
}
