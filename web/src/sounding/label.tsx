import type { SVGProps } from "react";

/**
 * Words on the sheet. Size, weight and slant go in as style, since the page's reset would
 * override them as attributes.
 */
export function Label({
  fontSize = 14,
  fontWeight = 400,
  fontStyle = "normal",
  ...rest
}: Omit<SVGProps<SVGTextElement>, "fontStyle"> & { fontStyle?: "normal" | "italic" }) {
  return <text style={{ fontSize, fontWeight, fontStyle }} {...rest} />;
}
