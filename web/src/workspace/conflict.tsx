import { Box, Flex } from "@chakra-ui/react";

import { Deed, Pill } from "../ui/pill";
import type { SceneWork } from "../desk/use-scene";

/** Somebody saved first: say so, and let the person choose; both states stay in the log. */
export function Conflict({ work }: { work: SceneWork }) {
  if (!work.conflict) return null;
  return (
    <Flex
      role="alertdialog"
      aria-label="Changed elsewhere"
      position="fixed"
      insetX="0"
      top="0"
      zIndex="10"
      justify="center"
      bg="plot"
      borderBottom="2px solid"
      borderColor="caution"
      padding="3"
      gap="4"
      align="center"
    >
      <Box maxWidth="62ch">
        <Box as="span" fontWeight={800} color="caution">
          Changed elsewhere.{" "}
        </Box>
        {work.conflict.message}
      </Box>
      <Deed onClick={work.takeTheirs}>show theirs</Deed>
      <Pill onClick={work.putMineOnTop}>put mine on top</Pill>
    </Flex>
  );
}
