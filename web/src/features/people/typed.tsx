import { Box, Input, type InputProps } from "@chakra-ui/react";
import { useId } from "react";

/** A word with a line to type in under it. */
export function Typed({
  label,
  hint,
  take,
  ...rest
}: { label: string; hint?: string; take: (text: string) => void } & InputProps) {
  const id = useId();
  return (
    <Box marginBottom="14px" maxWidth="360px">
      <Box asChild color="soft" display="block" marginBottom="4px">
        <label htmlFor={id}>{label}</label>
      </Box>
      <Input
        id={id}
        aria-describedby={hint ? `${id}-hint` : undefined}
        height="34px"
        fontSize="17px"
        bg="plot"
        borderColor="hair"
        _placeholder={{ color: "soft", opacity: 1 }}
        onChange={(event) => {
          take(event.target.value);
        }}
        {...rest}
      />
      {hint ? (
        <Box id={`${id}-hint`} color="soft" fontSize="14px" marginTop="4px">
          {hint}
        </Box>
      ) : null}
    </Box>
  );
}
