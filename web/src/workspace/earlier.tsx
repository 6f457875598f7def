import { Box, Flex } from "@chakra-ui/react";
import { Link } from "react-router";

import type { SceneRow } from "../api/types";
import { dateText } from "../units/display";
import { Deeds } from "./piece-deeds";

/** Pieces that nobody has touched for longest, by their names: nothing is computed of them until one is opened. */
export function Earlier({ scenes }: { scenes: readonly SceneRow[] }) {
  if (!scenes.length) return null;
  return (
    <Box as="section" aria-label="Earlier pieces" marginTop="40px">
      <Box borderBottom="1px solid" borderColor="ink" fontWeight={800} fontSize="19px" paddingBottom="4px">
        Earlier pieces{" "}
        <Box as="span" fontWeight={400} color="soft">
          {scenes.length}
        </Box>
      </Box>
      <Box as="ul" listStyleType="none" padding="0" margin="0" columns={{ base: 1, md: 2 }} columnGap="40px">
        {scenes.map((scene) => (
          <Box as="li" key={scene.id} breakInside="avoid" borderBottom="1px solid" borderColor="wash" paddingY="5px">
            <Flex gap="3" align="baseline">
              <Box flex="1" minWidth="0" overflowWrap="anywhere">
                <Link to={`/scenes/${scene.id}/pours`}>{scene.name}</Link>{" "}
                <Box as="span" color="soft" fontSize="14px">
                  {dateText(scene.changed_at)}
                </Box>
              </Box>
              <Deeds scene={scene} />
            </Flex>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
