import { Box } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** The usual caution, at the step where it matters. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Box marginTop="4" paddingLeft="3" borderLeft="3px solid" borderColor="caution" fontSize="14px">
      {children}
    </Box>
  );
}
