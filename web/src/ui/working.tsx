import { Box, Progress } from "@chakra-ui/react";

import { Pill } from "./pill";

/** How far long work is, and the way to end it. */
export function Working(props: { label: string; share: number; words: string; cancel: () => void; begun: boolean }) {
  return (
    <Box marginTop="2">
      <Progress.Root value={props.share * 100} size="xs" aria-label={props.label}>
        <Progress.Track bg="wash">
          <Progress.Range bg="depth" />
        </Progress.Track>
        <Progress.Label fontSize="14px" color="soft">
          {props.words}
        </Progress.Label>
      </Progress.Root>
      <Pill onClick={props.cancel} disabled={!props.begun}>
        end it
      </Pill>
    </Box>
  );
}
