import { Box } from "@chakra-ui/react";

import { PickColour } from "../../ui/pick-colour";

/** A reference photograph: press it to pick a colour. */
export function Photograph({ take, next }: { take: (srgb: string) => void; next: number }) {
  return (
    <Box marginTop="1">
      <PickColour
        label="Reference photograph"
        picture="Photograph to pick from"
        width={224}
        tallest={260}
        around={0}
        take={take}
        told={
          <Box fontSize="14px" color="soft">
            press it for colour {next}
          </Box>
        }
      >
        pick from a photograph
      </PickColour>
    </Box>
  );
}
