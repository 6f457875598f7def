import { Box, Flex } from "@chakra-ui/react";

import type { Session } from "../api/types";
import { useEnded } from "../desk/use-session";

/** A session that ended while a page was open: say so, and lead to the way in without leaving the page. */
export function Ended({ session }: { session: Session | undefined }) {
  const ended = useEnded(session);
  if (!ended) return null;
  return (
    <Flex
      role="alert"
      position="sticky"
      top="0"
      zIndex="10"
      justify="center"
      bg="plot"
      borderBottom="2px solid"
      borderColor="caution"
      padding="3"
      fontSize="17px"
    >
      <Box maxWidth="76ch">
        <Box as="span" fontWeight={800} color="caution">
          You are signed out.{" "}
        </Box>
        What you were doing is still in this page:{" "}
        <Box asChild color="depth" textDecoration="underline">
          <a href="/" target="_blank" rel="noopener">
            sign in in another tab
          </a>
        </Box>
        , then go on here.
      </Box>
    </Flex>
  );
}
