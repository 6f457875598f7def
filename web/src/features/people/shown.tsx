import { Box, Flex, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Shown } from "../../api/types";
import { Problem } from "../../ui/problem";
import { dayText, lengthText, massText, temperatureText, volumeText, whenText } from "../../units/display";

/** A piece as a link shows it: to look at and to carry away, not to change. */
export function ShownPiece({ token }: { token: string }) {
  const shown = useQuery({
    queryKey: ["shown", token],
    retry: false,
    queryFn: () => ask(api.GET("/api/shown/{token}", { params: { path: { token } } })),
  });
  if (shown.error)
    return (
      <Box as="main" maxWidth="1080px" margin="0 auto" padding={{ base: "40px 16px", md: "48px 24px" }}>
        <Box fontSize="26px" fontWeight={800} marginBottom="8px">
          Gondola
        </Box>
        <Problem>This link has lapsed, or was withdrawn: ask whoever gave it to you for another.</Problem>
      </Box>
    );
  if (!shown.data)
    return (
      <Box padding="12" color="soft">
        Unrolling the sheet ...
      </Box>
    );
  return <Piece token={token} shown={shown.data} />;
}

function Piece({ token, shown }: { token: string; shown: Shown }) {
  const [across, behind, deep] = shown.inside_mm.map((mm) => lengthText(mm, shown.units));
  return (
    <Box as="main" maxWidth="1080px" margin="0 auto" padding={{ base: "20px 16px", md: "28px 24px 60px" }}>
      <Flex align="baseline" gap="5" wrap="wrap" borderBottom="1px solid" borderColor="ink" paddingBottom="10px">
        <Heading as="h1" fontSize="26px" fontWeight={800}>
          {shown.name}
        </Heading>
        <Box color="soft">
          1:{shown.scale}, {across} x {behind}, {deep} deep; {volumeText(shown.resin_ml, shown.units)} of resin; as of{" "}
          {dayText(shown.changed_at)}
        </Box>
      </Flex>
      <Flex gap="32px" rowGap="20px" wrap="wrap" marginTop="20px" align="flex-start">
        <Box asChild flex="1 1 420px" minWidth="0" width="100%" bg="wash">
          <img src={`/api/shown/${token}/picture?width=960`} alt={`${shown.name}, as it will look`} />
        </Box>
        <Box flex="1 1 360px">
          <Pours shown={shown} />
          {shown.flags.length ? (
            <Box marginTop="14px">
              <Box fontWeight={800}>What the plan warns of</Box>
              {shown.flags.map((one) => (
                <Box key={one}>{one}</Box>
              ))}
            </Box>
          ) : null}
          <Flex gap="5" marginTop="18px" color="depth" textDecoration="underline" wrap="wrap">
            <a href={`/api/shown/${token}/sheet.pdf`}>pour sheet to print</a>
            <a href={`/api/shown/${token}/file`}>scene file</a>
          </Flex>
        </Box>
      </Flex>
      <Box color="soft" marginTop="28px" fontSize="14px">
        Shown by Gondola, to look at. Numbers are those of the plan: follow the maker’s safety data sheet at the bench.
      </Box>
    </Box>
  );
}

function Pours({ shown }: { shown: Shown }) {
  return (
    <Box
      asChild
      width="100%"
      css={{
        "& td, & th": { padding: "4px 10px 4px 0", textAlign: "left", verticalAlign: "top" },
        "& td:not(.words), & th": { whiteSpace: "nowrap" },
      }}
    >
      <table>
        <thead>
          <Box asChild color="soft" fontStyle="italic">
            <tr>
              <th scope="col">pour</th>
              <th scope="col">up to</th>
              <th scope="col">mix</th>
              <th scope="col">begins</th>
              <th scope="col">hottest</th>
            </tr>
          </Box>
        </thead>
        <tbody>
          {shown.pours.map((one) => (
            <Box asChild key={one.number} borderTop="1px solid" borderColor="wash">
              <tr>
                <th scope="row">{one.number}</th>
                <td>{lengthText(one.top_depth_mm, shown.units)}</td>
                <td className="words">
                  {massText(one.mix_g, shown.units)}
                  <Box color="soft" fontSize="14px">
                    {one.resin}
                    {one.colour ? `; in 100 g: ${one.colour}` : ""}
                  </Box>
                </td>
                <td>{whenText(one.starts_at)}</td>
                <td>{one.peak_c === null ? "" : temperatureText(one.peak_c, shown.units)}</td>
              </tr>
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
