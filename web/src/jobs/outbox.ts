/** Events of a run, kept on the device until the server has them: in order, each once, whatever happens between. */
import { type DBSchema, type IDBPDatabase, openDB } from "idb";

import { ask } from "../api/ask";
import { api } from "../api/client";
import { Refused } from "../api/refusal";
import type { RunNow, RunWhole } from "../api/types";

/** An event as the server takes it; `id` is the device's own. */
export interface RunEvent {
  id: string;
  at: string;
  kind: string;
  step_id?: string;
  device?: string;
  seen?: number;
  [field: string]: unknown;
}

interface Kept extends DBSchema {
  waiting: { key: number; value: { run_id: string; event: RunEvent }; indexes: { run: string } };
  runs: { key: string; value: { id: string; whole: RunWhole; offset_ms: number } };
}

let opened: Promise<IDBPDatabase<Kept>> | null = null;

function store(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("gondola-bench", 1, {
    upgrade(db) {
      const waiting = db.createObjectStore("waiting", { autoIncrement: true });
      waiting.createIndex("run", "run_id");
      db.createObjectStore("runs", { keyPath: "id" });
    },
  });
  return opened;
}

/** Puts events where a reload finds them; they are sent by `flush`. */
export async function put(runId: string, events: RunEvent[]): Promise<void> {
  const tx = (await store()).transaction("waiting", "readwrite");
  for (const event of events) void tx.store.add({ run_id: runId, event });
  await tx.done;
}

/** Events of a run that the server does not have yet, in the order in which they were entered. */
export async function waiting(runId: string): Promise<RunEvent[]> {
  return (await (await store()).getAllFromIndex("waiting", "run", runId)).map((one) => one.event);
}

/**
 * Sends what waits; what was taken in is forgotten here. One that the server refuses is taken out and told of, so that
 * those after it can go. Throws where the server cannot be reached.
 */
export async function flush(runId: string): Promise<{ now: RunNow | null; refused: string }> {
  const db = await store();
  const keys = await db.getAllKeysFromIndex("waiting", "run", runId);
  const rows = await db.getAllFromIndex("waiting", "run", runId);
  if (rows.length === 0) return { now: null, refused: "" };
  const send = (events: RunEvent[]) =>
    ask(api.POST("/api/runs/{run_id}/events", { params: { path: { run_id: runId } }, body: { events } }));
  let now: RunNow | null = null;
  let refused = "";
  try {
    now = await send(rows.map((one) => one.event));
  } catch (flaw) {
    if (!isRefusal(flaw)) throw flaw;
    for (const row of rows) {
      try {
        now = await send([row.event]);
      } catch (one) {
        if (!isRefusal(one)) throw one;
        refused = one.message;
      }
    }
  }
  const tx = db.transaction("waiting", "readwrite");
  for (const key of keys) void tx.store.delete(key);
  await tx.done;
  return { now, refused };
}

/**
 * True where the server has said no to what was sent for good. Who is signed out, or may not at the moment, or has to
 * wait, is not told no: what waits, waits on.
 */
function isRefusal(flaw: unknown): flaw is Refused {
  return flaw instanceof Refused && [400, 404, 409, 413, 422].includes(flaw.status);
}

/** Sends what waits of every run; how many events could not be sent, and what the server has refused for good. */
export async function flushAll(): Promise<{ left: number; refused: string }> {
  try {
    const db = await store();
    let refused = "";
    for (const run of new Set((await db.getAll("waiting")).map((one) => one.run_id))) {
      const told = await flush(run).catch(() => null);
      refused = told?.refused ?? refused;
    }
    return { left: await db.count("waiting"), refused };
  } catch {
    return { left: 0, refused: "" }; // a device that keeps nothing has nothing to send
  }
}

/** Forgets the runs that were looked at, for whoever takes this device next. What waits stays. */
export async function forgetRuns(): Promise<void> {
  await store().then(
    (db) => db.clear("runs"),
    () => undefined,
  );
}

/** The run as it was last seen, for a reload without the server; and how far the device's clock is off. */
export async function remember(whole: RunWhole, offset_ms: number): Promise<void> {
  await (await store()).put("runs", { id: whole.run.id, whole, offset_ms });
}

export async function remembered(runId: string): Promise<{ whole: RunWhole; offset_ms: number } | undefined> {
  return (await store()).get("runs", runId);
}
