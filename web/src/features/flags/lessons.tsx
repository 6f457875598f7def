import { Box } from "@chakra-ui/react";
import { Link } from "react-router";

import { useLessonsMet } from "../../desk/story";

const MOST = 3;

/** Lessons of other pieces that are pinned to what this plan uses. */
export function LearntBefore() {
  const met = useLessonsMet();
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
