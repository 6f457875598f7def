import { useCallback, useEffect, useRef, useState } from "react";

import { ask } from "../api/ask";
import { api } from "../api/client";
import type { JobState } from "../api/types";

export const OVER: readonly JobState["state"][] = ["done", "failed", "cancelled"];

export interface FollowedJob<Result> {
  job: JobState | null;
  result: Result | null;
  problem: string | null;
  busy: boolean;
  start: () => void;
  cancel: () => void;
}

/** A long computation: asked for, followed by its events, ended on request, and its result read. */
export function useJob<Result>(
  begin: () => Promise<JobState>,
  read: (id: string) => Promise<Result>,
): FollowedJob<Result> {
  const [job, setJob] = useState<JobState | null>(null);
  const [result, setResult] = useState<Result | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const stream = useRef<EventSource | null>(null);
  const close = useCallback(() => {
    stream.current?.close();
    stream.current = null;
  }, []);
  useEffect(() => close, [close]);
  const refuse = (flaw: unknown) => {
    setProblem(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
  };

  const take = useCallback(
    (state: JobState) => {
      setJob(state);
      if (!OVER.includes(state.state)) return;
      close();
      if (state.state === "failed") setProblem(state.message);
      if (state.state === "done") read(state.id).then(setResult).catch(refuse);
    },
    [close, read],
  );
  const follow = useCallback(
    (state: JobState) => {
      take(state);
      if (OVER.includes(state.state)) return;
      const events = new EventSource(`/api/jobs/${state.id}/events`);
      stream.current = events;
      events.onmessage = (event: MessageEvent<string>) => {
        take(JSON.parse(event.data) as JobState);
      };
    },
    [take],
  );
  const start = useCallback(() => {
    close();
    setProblem(null);
    setResult(null);
    setAsking(true);
    begin()
      .then(follow)
      .catch(refuse)
      .finally(() => {
        setAsking(false);
      });
  }, [begin, close, follow]);
  const cancel = useCallback(() => {
    if (job)
      ask(api.POST("/api/jobs/{job_id}/cancel", { params: { path: { job_id: job.id } } }))
        .then(take)
        .catch(refuse);
  }, [job, take]);
  return { job, result, problem, busy: asking || (job !== null && !OVER.includes(job.state)), start, cancel };
}
