import { Box, Flex, type FlexProps } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** What has to be known before anything else, along the top of the page. */
export function Strip({ lead, deeds, children, ...rest }: FlexProps & { lead: string; deeds?: ReactNode }) {
  return (
    <Flex
      top="0"
      zIndex="10"
      justify="center"
      bg="plot"
      borderBottom="2px solid"
      borderColor="caution"
      padding="3"
      gap="4"
      align="center"
      {...rest}
    >
      <Box maxWidth="76ch">
        <Box as="span" fontWeight={800} color="caution">
          {lead}{" "}
        </Box>
        {children}
      </Box>
      {deeds}
    </Flex>
  );
}
