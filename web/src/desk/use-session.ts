import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { hearEnded } from "../api/ended";
import { Refused } from "../api/refusal";
import type { Session } from "../api/types";

const AGAIN_MS = 3000;

/** `session` is null where nobody is signed in, and undefined where the server cannot be asked. */
interface Known {
  session: Session | null | undefined;
}

/** Who is signed in; undefined until that is known. */
export function useSession(): Known | undefined {
  // asked without a network too: what is kept on the device opens then
  const told = useQuery({ queryKey: ["session"], staleTime: Infinity, networkMode: "always", queryFn: askWho });
  return told.data;
}

async function askWho(): Promise<Known> {
  try {
    return { session: await ask(api.GET("/api/session")) };
  } catch (error) {
    return { session: error instanceof Refused && error.status === 401 ? null : undefined };
  }
}

/** What is to be done once somebody has signed in or out: nothing of the one before stays in the page. */
export function useChanged() {
  const queries = useQueryClient();
  return (session: Session | null) => {
    queries.setQueryData<Known>(["session"], { session });
    queries.removeQueries({ predicate: (one) => one.queryKey[0] !== "session" });
  };
}

/**
 * True from when a question met an ended session until somebody is signed in again, here or in another tab.
 *
 * What is in the page stays: questions that failed are asked again, and of another person everything is.
 */
export function useEnded(before: Session | undefined): boolean {
  const [ended, setEnded] = useState(false);
  const changed = useChanged();
  const queries = useQueryClient();
  useEffect(
    () =>
      hearEnded(() => {
        setEnded(true);
      }),
    [],
  );
  useEffect(() => {
    if (!ended) return;
    const again = setInterval(() => {
      void askWho().then(({ session }) => {
        if (!session) return;
        setEnded(false);
        if (session.name !== before?.name) changed(session);
        else void queries.refetchQueries({ predicate: (one) => one.state.status === "error" });
      });
    }, AGAIN_MS);
    return () => {
      clearInterval(again);
    };
  });
  return ended;
}
