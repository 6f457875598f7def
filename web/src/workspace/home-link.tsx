import { Box } from "@chakra-ui/react";
import { Link } from "react-router";

/** The name of the house, which leads to all scenes. */
export function HomeLink() {
  return (
    <Box asChild fontSize="24px" fontWeight={800}>
      <Link to="/" aria-label="Gondola, all scenes">
        Gondola
      </Link>
    </Box>
  );
}
