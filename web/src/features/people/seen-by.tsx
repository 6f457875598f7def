import { Box, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { SeenBy as Seen } from "../../api/types";
import { Deed, Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Choice } from "../../ui/row";
import { SheetOver } from "../../ui/sheet-over";
import { dayText } from "../../units/display";

const MAY = { look: "may look", work: "may work on it" } as const;
const DAYS = [
  [7, "a week"],
  [30, "a month"],
  [365, "a year"],
] as const;

/** Who sees a piece: members of the studio, and whoever holds a link. */
export function SeenBy({ sceneId, name, close }: { sceneId: number; name: string; close: () => void }) {
  const path = { scene_id: sceneId };
  const queries = useQueryClient();
  const key = ["seen-by", sceneId];
  const seen = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET("/api/scenes/{scene_id}/seen-by", { params: { path } })),
  });
  const take = (told: Seen) => {
    queries.setQueryData(key, told);
  };
  const sharing = useMutation({
    mutationFn: (body: { name: string; may: "look" | "work" }) =>
      ask(api.PUT("/api/scenes/{scene_id}/seen-by", { params: { path }, body })),
    onSuccess: take,
  });
  const ending = useMutation({
    mutationFn: (who: string) =>
      ask(api.DELETE("/api/scenes/{scene_id}/seen-by/{name}", { params: { path: { ...path, name: who } } })),
    onSuccess: take,
  });
  const linking = useMutation({
    mutationFn: (days: number) => ask(api.POST("/api/scenes/{scene_id}/links", { params: { path }, body: { days } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
  });
  const withdrawing = useMutation({
    mutationFn: (link: number) =>
      ask(api.DELETE("/api/scenes/{scene_id}/links/{link_id}", { params: { path: { ...path, link_id: link } } })),
    onSuccess: take,
  });
  const problem = [seen, sharing, ending, linking, withdrawing].find((one) => one.error)?.error?.message;
  return (
    <SheetOver label={`Who sees ${name}`} close={close}>
      <Flex justify="space-between" align="baseline">
        <Heading as="h2" fontSize="19px" fontWeight={800}>
          Who sees {name}
        </Heading>
        <Word onClick={close}>done</Word>
      </Flex>
      {seen.data ? (
        <>
          <Members seen={seen.data} share={sharing.mutate} end={ending.mutate} />
          <Links seen={seen.data} made={linking.data} make={linking.mutate} withdraw={withdrawing.mutate} />
        </>
      ) : null}
      <Problem>{problem}</Problem>
    </SheetOver>
  );
}

interface Share {
  name: string;
  may: "look" | "work";
}

function Members({ seen, share, end }: { seen: Seen; share: (one: Share) => void; end: (name: string) => void }) {
  const shared = new Map(seen.shares.map((one) => [one.name, one.may]));
  const others = seen.members.filter((one) => !shared.has(one));
  const [chosen, setChosen] = useState("");
  const who = others.includes(chosen) ? chosen : (others[0] ?? "");
  return (
    <Box as="section" aria-label="Members" marginTop="12px">
      {seen.shares.map((one) => (
        <Flex key={one.name} gap="3" align="baseline" borderBottom="1px solid" borderColor="wash" paddingY="3px">
          <Box fontWeight={700}>{one.name}</Box>
          <Box color="soft">{MAY[one.may]}</Box>
          <Word
            marginLeft="auto"
            onClick={() => {
              share({ name: one.name, may: one.may === "look" ? "work" : "look" });
            }}
          >
            {one.may === "look" ? "let work" : "let only look"}
          </Word>
          <Word
            aria-label={`Take ${one.name} off`}
            onClick={() => {
              end(one.name);
            }}
          >
            take off
          </Word>
        </Flex>
      ))}
      {others.length ? (
        <Box marginTop="8px">
          <Choice
            label="Member of the studio"
            value={who}
            options={others.map((one) => [one, one] as const)}
            take={setChosen}
          />
          <Flex gap="3" marginTop="8px" wrap="wrap">
            <Pill
              onClick={() => {
                share({ name: who, may: "look" });
              }}
            >
              let {who} look
            </Pill>
            <Pill
              onClick={() => {
                share({ name: who, may: "work" });
              }}
            >
              let {who} work on it
            </Pill>
          </Flex>
        </Box>
      ) : seen.shares.length ? null : (
        <Box color="soft">Nobody else is in this studio yet; its owner invites people under “account”.</Box>
      )}
    </Box>
  );
}

interface Linking {
  seen: Seen;
  made: { path: string; lapses_at: string } | undefined;
  make: (days: number) => void;
  withdraw: (id: number) => void;
}

function Links({ seen, made, make, withdraw }: Linking) {
  const [days, setDays] = useState("30");
  return (
    <Box as="section" aria-label="Links" marginTop="20px">
      <Box fontSize="17px" fontWeight={800}>
        By a link
      </Box>
      <Box color="soft">Whoever has the address sees the piece, its pours and its files, and changes nothing.</Box>
      {seen.links.map((one) => (
        <Flex key={one.id} gap="3" align="baseline" borderBottom="1px solid" borderColor="wash" paddingY="3px">
          <Box>
            made {dayText(one.created_at)}, lapses {dayText(one.lapses_at)}
          </Box>
          <Word
            marginLeft="auto"
            onClick={() => {
              withdraw(one.id);
            }}
          >
            withdraw
          </Word>
        </Flex>
      ))}
      {made ? (
        <Box marginTop="8px" padding="8px 10px" bg="plot" border="1px solid" borderColor="hair" role="status">
          <Box color="soft" fontSize="14px">
            Copy it now: it is not shown again.
          </Box>
          <Box fontSize="15px" wordBreak="break-all" fontWeight={700}>
            {window.location.origin + made.path}
          </Box>
        </Box>
      ) : null}
      <Box marginTop="10px">
        <Choice
          label="How long the link lasts"
          value={days}
          options={DAYS.map(([one, word]) => [String(one), word] as const)}
          take={setDays}
        />
        <Deed
          marginTop="8px"
          onClick={() => {
            make(Number(days));
          }}
        >
          Make a link
        </Deed>
      </Box>
    </Box>
  );
}
