import { Box, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { MemberRow, Session } from "../../api/types";
import { useChanged, useSession } from "../../desk/use-session";
import { flushAll, forgetRuns } from "../../jobs/outbox";
import { BringFile } from "../../ui/bring-file";
import { Deed, Pill, Word } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { dayText } from "../../units/display";
import { Typed } from "./typed";

/** One's own account, and who else is in the studio. */
export function Account() {
  const session = useSession()?.session;
  if (!session) return null;
  return (
    <Flex gap="56px" rowGap="36px" wrap="wrap" align="flex-start" paddingTop="6px">
      <Box flex="1 1 320px" maxWidth="480px">
        <Signed session={session} />
        <Archive />
        {session.demo ? null : <Password />}
      </Box>
      <Box flex="1 1 320px" maxWidth="560px">
        <People session={session} />
        {session.demo ? null : <Leave />}
      </Box>
    </Flex>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="section" aria-label={title} marginBottom="28px">
      <Heading as="h2" fontSize="18px" fontWeight={800} marginBottom="6px">
        {title}
      </Heading>
      {children}
    </Box>
  );
}

/** What is said before a device is signed out from which not all could be sent. */
function unsentWords({ left, refused }: { left: number; refused: string }): string {
  const stays = `Not yet sent from the bench: ${left}. It stays on this device until its run is opened here again.`;
  const said = [refused, left ? stays : ""].filter(Boolean);
  return said.length ? [...said, "Sign out once more to leave it so."].join(" ") : "";
}

function Signed({ session }: { session: Session }) {
  const changed = useChanged();
  const go = useNavigate();
  const [unsaid, setUnsaid] = useState("");
  const leaving = useMutation({
    mutationFn: async (everywhere: boolean) => {
      const said = unsaid ? "" : unsentWords(await flushAll());
      if (!said) await ask(api.DELETE("/api/session", { params: { query: { everywhere } } }));
      return said;
    },
    onSuccess: async (said) => {
      setUnsaid(said);
      if (said) return;
      await forgetRuns();
      changed(null);
      await go("/");
    },
  });
  return (
    <Part title={session.name}>
      <Box color="soft">
        {session.demo
          ? "The demo signs in by itself, on this machine only; it has no password."
          : session.owner
            ? "You own this studio."
            : "You are a member of this studio."}
      </Box>
      {session.demo ? null : (
        <Flex gap="3" marginTop="8px">
          <Pill
            onClick={() => {
              leaving.mutate(false);
            }}
          >
            sign out here
          </Pill>
          <Pill
            onClick={() => {
              leaving.mutate(true);
            }}
          >
            sign out everywhere
          </Pill>
        </Flex>
      )}
      <Box marginTop="6px">
        <Problem>{unsaid || leaving.error?.message}</Problem>
      </Box>
    </Part>
  );
}

/** All that is one's own, out and in again. */
function Archive() {
  const queries = useQueryClient();
  const bringing = useMutation({
    mutationFn: (file: File) =>
      ask(
        api.POST("/api/archive", {
          body: file as unknown as string,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["scenes"] }),
  });
  return (
    <Part title="All that is yours">
      <Box color="soft">
        Pieces with every revision, logs, photographs, runs, stills, your own resins and what their bottles have learnt,
        in one archive of open formats. It can be taken in here or in another studio.
      </Box>
      <Flex gap="4" align="baseline" marginTop="6px">
        <Box asChild color="depth" textDecoration="underline">
          <a href="/api/archive">carry it away</a>
        </Box>
        <BringFile label="Archive" accept=".zip,application/zip" take={bringing.mutate}>
          take an archive in
        </BringFile>
      </Flex>
      {bringing.isPending ? <Box color="soft">Taking it in ...</Box> : null}
      {bringing.data?.words.map((one) => (
        <Box key={one} role="status">
          {one}
        </Box>
      ))}
      <Problem>{bringing.error?.message}</Problem>
    </Part>
  );
}

function Password() {
  const [password, setPassword] = useState("");
  const [wanted, setWanted] = useState("");
  const changing = useMutation({
    mutationFn: () => ask(api.PUT("/api/session/password", { body: { password, new_password: wanted } })),
    onSuccess: () => {
      setPassword("");
      setWanted("");
    },
  });
  return (
    <Part title="Another password">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          changing.mutate();
        }}
      >
        <Typed label="as it is" type="password" autoComplete="current-password" value={password} take={setPassword} />
        <Typed label="as it shall be" type="password" autoComplete="new-password" value={wanted} take={setWanted} />
        <Deed type="submit" disabled={changing.isPending}>
          Change it
        </Deed>
      </form>
      <Problem>{changing.error?.message}</Problem>
      {changing.isSuccess ? <Box role="status">Changed; wherever else you were signed in, you are not now.</Box> : null}
    </Part>
  );
}

function People({ session }: { session: Session }) {
  const people = useQuery({ queryKey: ["people"], queryFn: () => ask(api.GET("/api/people")) });
  const queries = useQueryClient();
  const take = (rows: MemberRow[]) => {
    queries.setQueryData(["people"], rows);
  };
  const ending = useMutation({
    mutationFn: (name: string) => ask(api.DELETE("/api/people/{name}", { params: { path: { name } } })),
    onSuccess: take,
  });
  const keeping = useMutation({
    mutationFn: (name: string) => ask(api.POST("/api/people/{name}/stay", { params: { path: { name } } })),
    onSuccess: take,
  });
  const may = session.owner && !session.demo;
  return (
    <Part title="The studio">
      {(people.data ?? []).map((one) => (
        <Flex key={one.name} gap="3" align="baseline" borderBottom="1px solid" borderColor="wash" paddingY="3px">
          <Box fontWeight={700}>{one.name}</Box>
          <Box color="soft">
            {one.leaves_at ? `leaves; all is deleted ${dayText(one.leaves_at)}` : one.owner ? "owner" : "member"}
          </Box>
          {may && one.name !== session.name ? (
            <Word
              marginLeft="auto"
              aria-label={one.leaves_at ? `Keep ${one.name}` : `Let ${one.name} go`}
              onClick={() => {
                (one.leaves_at ? keeping : ending).mutate(one.name);
              }}
            >
              {one.leaves_at ? "keep" : "let go"}
            </Word>
          ) : null}
        </Flex>
      ))}
      <Problem>{(people.error ?? ending.error ?? keeping.error)?.message}</Problem>
      {may ? <Invite /> : null}
    </Part>
  );
}

function Invite() {
  const [name, setName] = useState("");
  const [owner, setOwner] = useState(false);
  const inviting = useMutation({
    mutationFn: () => ask(api.POST("/api/people/invitations", { body: { name, as_owner: owner } })),
  });
  return (
    <Box marginTop="14px">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          inviting.mutate();
        }}
      >
        <Typed
          label="invite somebody"
          placeholder="a name"
          value={name}
          take={setName}
          hint="Somebody who is here already chooses a new password with it."
        />
        <Box asChild display="block" marginBottom="12px">
          <label>
            <input
              type="checkbox"
              checked={owner}
              onChange={(event) => {
                setOwner(event.target.checked);
              }}
            />{" "}
            as another owner of the studio
          </label>
        </Box>
        <Deed type="submit" disabled={inviting.isPending}>
          Make an invitation
        </Deed>
      </form>
      <Problem>{inviting.error?.message}</Problem>
      {inviting.data ? (
        <Box marginTop="10px" padding="8px 10px" bg="plot" border="1px solid" borderColor="hair" role="status">
          <Box color="soft" fontSize="14px">
            Hand this address to them; it works once, until {dayText(inviting.data.lapses_at)}, and is not shown again.
          </Box>
          <Box fontSize="15px" wordBreak="break-all" fontWeight={700}>
            {window.location.origin + inviting.data.path}
          </Box>
        </Box>
      ) : null}
    </Box>
  );
}

function Leave() {
  const [password, setPassword] = useState("");
  const changed = useChanged();
  const leaving = useMutation({
    mutationFn: async () => {
      // runs of others' pieces stay, and want what was entered here
      await flushAll();
      return ask(api.POST("/api/session/leave", { body: { password } }));
    },
    onSuccess: async () => {
      await forgetRuns();
      changed(null);
    },
  });
  return (
    <Part title="Leave the studio">
      <Box color="soft" marginBottom="8px">
        Your account, your pieces, their logs and photographs are deleted after a day; until then the owner can keep
        them. Carry your archive away first.
      </Box>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          leaving.mutate();
        }}
      >
        <Typed
          label="your password"
          type="password"
          autoComplete="current-password"
          value={password}
          take={setPassword}
        />
        <Pill type="submit" tone="caution" disabled={!password}>
          delete all that is mine
        </Pill>
      </form>
      <Problem>{leaving.error?.message}</Problem>
    </Part>
  );
}
