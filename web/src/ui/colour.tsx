import { Box } from "@chakra-ui/react";

/** A colour to choose. */
export function Colour(props: { label: string; value: string; take: (value: string) => void }) {
  return (
    <Box
      asChild
      display="flex"
      justifyContent="space-between"
      borderBottom="1px solid"
      borderColor="wash"
      paddingY="3px"
      color="soft"
    >
      <label>
        {props.label}
        <input
          type="color"
          value={props.value}
          onChange={(event) => {
            props.take(event.target.value);
          }}
        />
      </label>
    </Box>
  );
}
