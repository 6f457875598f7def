import { Box } from "@chakra-ui/react";

import type { Session } from "../api/types";
import { useEnded } from "../desk/use-session";
import { Strip } from "../ui/strip";

/** A session that ended while a page was open: say so, and lead to the way in without leaving the page. */
export function Ended({ session }: { session: Session | undefined }) {
  const ended = useEnded(session);
  if (!ended) return null;
  return (
    <Strip role="alert" position="sticky" fontSize="17px" lead="You are signed out.">
      What you were doing is still in this page:{" "}
      <Box asChild color="depth" textDecoration="underline">
        <a href="/" target="_blank" rel="noopener">
          sign in in another tab
        </a>
      </Box>
      , then go on here.
    </Strip>
  );
}
