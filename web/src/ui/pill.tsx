import { Button, type ButtonProps } from "@chakra-ui/react";

/** An outlined pill: something to try. */
export function Pill({ tone = "ink", ...rest }: ButtonProps & { tone?: "ink" | "caution" | "watch" | "depth" }) {
  return (
    <Button
      variant="outline"
      size="xs"
      height="auto"
      minHeight="24px"
      maxWidth="100%"
      flexShrink={1}
      paddingX="10px"
      paddingY="2px"
      fontSize="14px"
      lineHeight="1.2"
      textAlign="left"
      whiteSpace="normal"
      color={tone}
      borderColor={tone}
      bg="transparent"
      _hover={{ bg: "wash" }}
      {...rest}
    />
  );
}

/** A filled pill: the one thing to do next. */
export function Deed(props: ButtonProps) {
  return <Button size="sm" height="34px" fontSize="15px" bg="ink" color="paper" _hover={{ bg: "depth" }} {...props} />;
}

/** A word that acts, without a box. */
export function Word(props: ButtonProps) {
  return (
    <Button
      variant="plain"
      size="xs"
      height="auto"
      minWidth="0"
      minHeight="25px"
      padding="2px 4px"
      fontSize="15px"
      color="depth"
      fontWeight={400}
      _hover={{ textDecoration: "underline" }}
      _disabled={{ opacity: 0.45 }}
      {...props}
    />
  );
}
