import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { ask } from "../../api/ask";
import { api, readIn } from "../../api/client";
import { Refused } from "../../api/refusal";
import type { BenchStep, InstrumentState, RunNow, RunWhole } from "../../api/types";
import { flush, put, remember, remembered, type RunEvent, waiting as waitingOf } from "../../jobs/outbox";
import { useStream } from "../../jobs/use-stream";
import { standing, type Standing } from "./standing";
import { inOrder, type Teller } from "./telling";

const AGAIN_MS = 3000;
const LOOK_MS = 5000;

interface Streamed {
  number: number;
  ended: boolean;
  ahead_s: number;
  instruments: InstrumentState[];
}

export interface FollowedRun {
  whole: RunWhole | null;
  now: RunNow | null;
  stands: Standing | null;
  step: BenchStep | null;
  instruments: InstrumentState[];
  waiting: RunEvent[];
  online: boolean;
  problem: string;
  teller: Teller;
  tell: (events: RunEvent[]) => Promise<void>;
  /** takes over what another question has answered */
  take: (now: RunNow) => void;
  reload: () => Promise<void>;
}

/** The run's clock, as it was told when this device's stood at a moment. */
function clockOf(run: RunNow, at_ms: number) {
  return { at_ms, server_ms: Date.parse(run.now), speed: run.ended_at ? 0 : run.speed };
}

/** A run followed live: what the server says, what this device has entered since, and its own clock. */
export function useRun(id: string): FollowedRun {
  const [whole, setWhole] = useState<RunWhole | null>(null);
  const [now, setNow] = useState<RunNow | null>(null);
  const [waiting, setWaiting] = useState<RunEvent[]>([]);
  const [online, setOnline] = useState(true);
  const [problem, setProblem] = useState("");
  const clock = useRef({ at_ms: 0, server_ms: 0, speed: 1 });
  const { told, alive } = useStream<Streamed>(whole ? `/api/runs/${id}/stream` : null);

  const take = useCallback((fresh: RunNow) => {
    clock.current = clockOf(fresh, Date.now());
    setNow(fresh);
    setOnline(true);
  }, []);
  const runNow = useCallback(() => {
    const { at_ms, server_ms, speed } = clock.current;
    return server_ms + (Date.now() - at_ms) * speed;
  }, []);
  const lost = useCallback((flaw: unknown) => {
    // who is signed out is told so along the top of the page
    if (flaw instanceof Refused && flaw.status === 401) return;
    if (flaw instanceof Refused && flaw.status < 500) setProblem(flaw.message);
    else setOnline(false);
  }, []);

  const reload = useCallback(async () => {
    try {
      const fresh = await ask(api.GET("/api/runs/{run_id}", { params: { path: { run_id: id } } }));
      readIn(fresh.document.brief.units ?? {});
      setWhole(fresh);
      take(fresh.run);
    } catch (flaw) {
      lost(flaw);
      const kept = await remembered(id);
      if (!kept) return;
      setWhole((old) => old ?? kept.whole);
      setNow((old) => old ?? kept.whole.run);
      // from the moment that was remembered on: a rehearsal's clock runs quicker than ours
      clock.current = clockOf(kept.whole.run, Date.parse(kept.whole.run.now) - kept.offset_ms);
    }
  }, [id, lost, take]);
  useEffect(() => {
    void waitingOf(id).then(setWaiting);
    const soon = setTimeout(() => void reload(), 0);
    return () => {
      clearTimeout(soon);
    };
  }, [id, reload]);

  const send = useCallback(async () => {
    let fresh: RunNow | null = null;
    try {
      const sent = await flush(id);
      fresh = sent.now;
      setProblem(sent.refused);
    } catch (flaw) {
      lost(flaw);
    }
    // at one moment: what the server has does not wait here any more
    const left = await waitingOf(id);
    if (fresh) take(fresh);
    setWaiting(left);
  }, [id, lost, take]);
  const tell = useCallback(
    async (events: RunEvent[]) => {
      await put(id, inOrder(events, [...(now?.events ?? []), ...(await waitingOf(id))]));
      setWaiting(await waitingOf(id));
      await send();
    },
    [id, now, send],
  );

  const look = useCallback(async () => {
    try {
      take(await ask(api.GET("/api/runs/{run_id}/now", { params: { path: { run_id: id } } })));
    } catch (flaw) {
      lost(flaw);
    }
  }, [id, lost, take]);
  const behind = told !== null && now !== null && told.number !== now.number && waiting.length === 0;
  useEffect(() => {
    if (!behind) return;
    const soon = setTimeout(() => void look(), 0);
    return () => {
      clearTimeout(soon);
    };
  }, [behind, told?.number, look]);
  useEffect(() => {
    const again = setInterval(
      () => {
        if (waiting.length) void send();
        else if (!alive || !online) void look();
      },
      waiting.length ? AGAIN_MS : LOOK_MS,
    );
    const back = () => void send();
    window.addEventListener("online", back);
    return () => {
      clearInterval(again);
      window.removeEventListener("online", back);
    };
  }, [waiting.length, alive, online, send, look]);

  // what was heard last is what a reload without the server goes on from
  useEffect(() => {
    if (whole && now && online) void remember({ ...whole, run: now }, Date.parse(now.now) - clock.current.at_ms);
  }, [whole, now, online]);
  const stands = useMemo(() => (whole && now ? standing(whole.steps, now, waiting) : null), [whole, now, waiting]);
  const step = whole?.steps.find((one) => one.id === stands?.current) ?? null;
  return {
    whole,
    now,
    stands,
    step,
    instruments: told?.instruments ?? [],
    waiting,
    online,
    problem,
    teller: { now: runNow, seen: now?.number ?? 0 },
    tell,
    take,
    reload,
  };
}
