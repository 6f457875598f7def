import { Box, Heading } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";

import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { useChanged } from "../../desk/use-session";
import { Deed } from "../../ui/pill";
import { Problem } from "../../ui/problem";
import { Typed } from "./typed";

const ENOUGH = "Ten characters or more; a few words that only you would put together are best.";

/** The way in, for whoever has a name here. */
export function SignIn() {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const changed = useChanged();
  const entering = useMutation({
    mutationFn: () => ask(api.POST("/api/session", { body: { name, password } })),
    onSuccess: changed,
  });
  return (
    <Entrance title="Sign in" deed="Sign in" enter={entering.mutate} busy={entering.isPending} error={entering.error}>
      <Typed label="name" autoComplete="username" autoFocus value={name} take={setName} />
      <Typed label="password" type="password" autoComplete="current-password" value={password} take={setPassword} />
    </Entrance>
  );
}

/** Where an invitation leads: a name and a password are chosen, once. */
export function Welcome({ token }: { token: string }) {
  const params = { path: { token } };
  const invited = useQuery({
    queryKey: ["invitation", token],
    retry: false,
    queryFn: () => ask(api.GET("/api/invitations/{token}", { params })),
  });
  const [typed, setTyped] = useState<string | null>(null);
  const [password, setPassword] = useState("");
  const changed = useChanged();
  const go = useNavigate();
  const name = typed ?? invited.data?.name ?? "";
  const joining = useMutation({
    mutationFn: () => ask(api.POST("/api/invitations/{token}", { params, body: { name, password } })),
    onSuccess: async (session) => {
      changed(session);
      await go("/");
    },
  });
  if (invited.error)
    return (
      <Box as="main" maxWidth="1080px" margin="0 auto" padding={{ base: "40px 16px", md: "48px 24px" }}>
        <Problem>This invitation was used already, or has lapsed: ask the owner of the studio for another.</Problem>
      </Box>
    );
  if (!invited.data) return null;
  const there = invited.data.there_already;
  return (
    <Entrance
      title={there ? `A new password for ${invited.data.name}` : "Welcome to the studio"}
      deed={there ? "Use it from now on" : "Come in"}
      enter={joining.mutate}
      busy={joining.isPending}
      error={joining.error}
    >
      {there ? null : (
        <Typed
          label="name that the others will see"
          autoComplete="username"
          autoFocus
          value={name}
          take={setTyped}
          hint="Letters, digits and @ . + - _"
        />
      )}
      <Typed
        label="password"
        type="password"
        autoComplete="new-password"
        value={password}
        take={setPassword}
        hint={ENOUGH}
      />
    </Entrance>
  );
}

interface Way {
  title: string;
  deed: string;
  enter: () => void;
  busy: boolean;
  error: Error | null;
  children: ReactNode;
}

function Entrance({ title, deed, enter, busy, error, children }: Way) {
  return (
    <Box as="main" maxWidth="460px" margin="0 auto" padding={{ base: "40px 16px", md: "12vh 24px 60px" }}>
      <Box fontSize="32px" fontWeight={800} lineHeight="1.1">
        Gondola
      </Box>
      <Box color="soft" fontSize="17px" borderBottom="1px solid" borderColor="ink" paddingBottom="14px">
        What will happen when a deep scene is cast in clear resin.
      </Box>
      <Heading as="h1" fontSize="19px" fontWeight={500} marginTop="22px" marginBottom="12px">
        {title}
      </Heading>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          enter();
        }}
      >
        {children}
        <Deed type="submit" disabled={busy}>
          {deed}
        </Deed>
        <Problem>{error?.message}</Problem>
      </form>
    </Box>
  );
}
