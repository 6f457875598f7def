import { Box, Flex, Heading } from "@chakra-ui/react";
import { useState } from "react";
import { Link } from "react-router";

import { BeginPiece } from "../features/begin";
import { localNow } from "../units/display";
import { addScene } from "./bring-scene";

/** From an idea to a plan. */
export default function BeginPage() {
  const [now] = useState(localNow);
  return (
    <Box as="main" maxWidth="1184px" margin="0 auto" padding={{ base: "16px", md: "16px 24px 40px" }}>
      <Flex align="baseline" gap="4" borderBottom="1px solid" borderColor="ink" paddingBottom="8px" marginBottom="10px">
        <Box asChild fontSize="24px" fontWeight={800}>
          <Link to="/" aria-label="Gondola, all scenes">
            Gondola
          </Link>
        </Box>
        <Heading as="h1" fontSize="19px" fontWeight={500}>
          Begin a piece
        </Heading>
      </Flex>
      <BeginPiece now={now} add={addScene} />
    </Box>
  );
}
