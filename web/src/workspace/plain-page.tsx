import { Box, Flex, Heading } from "@chakra-ui/react";
import type { ReactNode } from "react";

import { HomeLink } from "./home-link";

/** A page beside the sheets: the way back, a title, and what it holds. */
export function PlainPage({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="main" maxWidth="1184px" margin="0 auto" padding={{ base: "16px", md: "16px 24px 40px" }}>
      <Flex align="baseline" gap="4" borderBottom="1px solid" borderColor="ink" paddingBottom="8px" marginBottom="10px">
        <HomeLink />
        <Heading as="h1" fontSize="19px" fontWeight={500}>
          {title}
        </Heading>
      </Flex>
      {children}
    </Box>
  );
}
