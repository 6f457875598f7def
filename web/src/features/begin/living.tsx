import { Box, Flex, Heading } from "@chakra-ui/react";
import { useEffect, useState } from "react";

import { api } from "../../api/client";
import type { Begun, Scene } from "../../api/types";
import { Mark } from "../../ui/mark";
import { Problem } from "../../ui/problem";

const PARTS = [
  ["waits", "When hands are needed"],
  ["wrong", "What can go wrong"],
  ["buy", "What to have"],
  ["cost", "What it costs"],
  ["unknown", "What is not known yet"],
] as const;

/** The plan of the answers so far: how it will look, and what it asks. */
export function Living({ begun, laid, problem }: { begun: Begun | null; laid: boolean; problem: string | null }) {
  return (
    <Box as="section" aria-label="The plan so far" aria-busy={!laid && !problem} minWidth="0">
      <Problem marginBottom="2">{problem}</Problem>
      {begun ? <Look scene={begun.scene} /> : <Box color="soft">Laying a first plan ...</Box>}
      {begun ? (
        <Box opacity={laid ? 1 : 0.75}>
          <Flex gap="2" align="baseline" marginTop="2" role="status">
            {begun.stops_count > 0 ? <Mark severity="stop" /> : null}
            <Box fontWeight={800} fontSize="17px">
              {begun.scene.pours.length} {begun.scene.pours.length === 1 ? "pour" : "pours"},{" "}
              {begun.stops_count === 0 ? "nothing stops it" : `${begun.stops_count} to stop it`}
              {laid ? "" : " ..."}
            </Box>
          </Flex>
          <Box columnGap="36px" css={{ columns: { base: 1, md: 2 } }} marginTop="1">
            {PARTS.map(([part, title]) =>
              begun.summary[part].length > 0 ? (
                <Box key={part} breakInside="avoid" marginBottom="3">
                  <Heading as="h3" fontSize="15px" fontWeight={800} lineHeight="1.4">
                    {title}
                  </Heading>
                  <Box as="ul" listStyleType="none" fontSize="14px" lineHeight="1.3">
                    {begun.summary[part].map((line) => (
                      <Box as="li" key={line} paddingY="2px">
                        {line}
                      </Box>
                    ))}
                  </Box>
                </Box>
              ) : null,
            )}
          </Box>
        </Box>
      ) : null}
    </Box>
  );
}

/** The core's picture of a scene that is not kept yet. */
function Look({ scene }: { scene: Scene }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let gone = false;
    const above = scene.brief.viewing_sides[0] === "above";
    void api
      .POST("/api/picture", {
        params: { query: { view: above ? "above" : "front", width: 720 } },
        body: scene,
        parseAs: "blob",
      })
      .then(({ data }) => {
        if (!gone && data) setAddress(URL.createObjectURL(data as Blob));
      })
      // without a picture the plan beside it still stands
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [scene]);
  useEffect(
    () => () => {
      if (address) URL.revokeObjectURL(address);
    },
    [address],
  );
  return (
    <Box height={{ base: "240px", lg: "330px" }}>
      {address ? (
        <img
          src={address}
          alt={`${scene.name}, as it will look`}
          style={{ width: "100%", height: "100%", objectFit: "contain", objectPosition: "left" }}
        />
      ) : null}
    </Box>
  );
}
