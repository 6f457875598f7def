import { Box, type BoxProps } from "@chakra-ui/react";

/** Why something was not done, said at once to who hears the page; nothing while all is well. */
export function Problem({ children, ...rest }: BoxProps) {
  if (children === null || children === undefined || children === "") return null;
  return (
    <Box role="alert" color="caution" {...rest}>
      {children}
    </Box>
  );
}
