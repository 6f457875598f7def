import { Box } from "@chakra-ui/react";
import { useLayoutEffect } from "react";

import type { Session } from "../api/types";
import { useEnded } from "../desk/use-session";
import { useSize } from "../sounding/size";
import { Strip } from "../ui/strip";

/** A session that ended while a page was open: say so, and lead to the way in without leaving the page. */
export function Ended({ session }: { session: Session | undefined }) {
  return useEnded(session) ? <SignedOut /> : null;
}

function SignedOut() {
  const [ref, { height }] = useSize();
  // a page that fills the window leaves out so much of it
  useLayoutEffect(() => {
    document.documentElement.style.setProperty("--strip", `${String(height)}px`);
    return () => {
      document.documentElement.style.removeProperty("--strip");
    };
  }, [height]);
  return (
    <Box ref={ref} position="sticky" top="0" zIndex="10">
      <Strip role="alert" fontSize="17px" lead="You are signed out.">
        What you were doing is still in this page:{" "}
        <Box asChild color="depth" textDecoration="underline">
          <a href="/" target="_blank" rel="noopener">
            sign in in another tab
          </a>
        </Box>
        , then go on here.
      </Strip>
    </Box>
  );
}
