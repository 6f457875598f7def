import { Box, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";

import type { Glance, SceneRow } from "../../api/types";
import { localNow, whenText } from "../../units/display";

interface Hour {
  at: string;
  scene: SceneRow;
  words: string;
}

/** The next planned hour at which some piece wants hands; none where all lies behind. */
export function nextHour(scenes: readonly SceneRow[], glances: Map<number, Glance>, now: string): Hour | null {
  const hours = scenes.flatMap((scene): Hour[] => {
    const glance = glances.get(scene.id);
    if (!glance) return [];
    const out = glance.demould_at ? [{ at: glance.demould_at, scene, words: "comes out of its dam" }] : [];
    if (glance.state === "finished") return [];
    if (glance.state === "waiting") return out;
    if (glance.state === "pouring" && glance.opens_at)
      return [{ at: glance.opens_at, scene, words: `pour ${glance.next_pour ?? 1} opens` }, ...out];
    return [{ at: glance.first_pour_at, scene, words: "first pour" }, ...out];
  });
  const ahead = hours.filter((one) => one.at >= now).sort((a, b) => a.at.localeCompare(b.at));
  return ahead[0] ?? null;
}

export function NextHour({ scenes, glances }: { scenes: readonly SceneRow[]; glances: Map<number, Glance> }) {
  const [now] = useState(localNow);
  const hour = nextHour(scenes, glances, now);
  if (!hour) return null;
  return (
    <Flex gap="6" rowGap="0" wrap="wrap" align="baseline" borderBottom="1px solid" borderColor="hair" paddingY="14px">
      <Box fontSize="22px" fontWeight={800}>
        {whenText(hour.at)}
      </Box>
      <Box fontSize="19px">
        <Link to={`/scenes/${hour.scene.id}/bench`}>{hour.scene.name}</Link>: {hour.words}, as planned
      </Box>
    </Flex>
  );
}
