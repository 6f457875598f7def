import { Box, Button, type ButtonProps } from "@chakra-ui/react";

/** A target for a gloved hand or a knuckle: 64 px and more. */
export function Target({ main, ...rest }: ButtonProps & { main?: boolean }) {
  return (
    <Button
      height="auto"
      minHeight={{ base: "72px", md: "96px" }}
      minWidth="64px"
      paddingX="24px"
      paddingY="10px"
      borderRadius="14px"
      border="3px solid"
      borderColor="ink"
      fontSize={{ base: "22px", md: "28px" }}
      fontWeight={700}
      lineHeight="1.1"
      whiteSpace="normal"
      bg={main ? "ink" : "transparent"}
      color={main ? "paper" : "ink"}
      _hover={{ bg: main ? "depth" : "wash" }}
      {...rest}
    />
  );
}

/** A number that is read from across the bench. */
export function Huge({ children, unit }: { children: React.ReactNode; unit?: string }) {
  return (
    <Box as="span" fontSize={{ base: "84px", md: "150px" }} fontWeight={800} lineHeight="0.95" whiteSpace="nowrap">
      {children}
      {unit ? (
        <Box as="span" fontSize="0.4em" fontWeight={400} color="soft" marginLeft="0.2em">
          {unit}
        </Box>
      ) : null}
    </Box>
  );
}

/** A number that is typed with a glove on. */
export function Typed({
  label,
  value,
  unit,
  set,
}: {
  label: string;
  value: string;
  unit: string;
  set: (text: string) => void;
}) {
  return (
    <Box as="label" display="flex" alignItems="center" gap="14px" fontSize={{ base: "20px", md: "24px" }}>
      <span>{label}</span>
      <Box asChild height="72px" width="150px" border="3px solid" borderColor="hair" borderRadius="12px" bg="plot">
        <input
          inputMode="decimal"
          value={value}
          onChange={(event) => {
            set(event.target.value);
          }}
          style={{ fontSize: "34px", fontWeight: 700, textAlign: "center" }}
        />
      </Box>
      <span>{unit}</span>
    </Box>
  );
}

/** Minutes and seconds; hours where there are many. */
export function clockFigure(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1000));
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor((seconds % 3600) / 60);
  if (hours > 0) return `${hours} h ${String(minutes).padStart(2, "0")}`;
  return `${minutes}:${String(seconds % 60).padStart(2, "0")}`;
}
