import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { api } from "../api/client";
import { refused } from "../api/refusal";
import type { Scene, SceneState, Stale } from "../api/types";

const SAVE_AFTER = 350;

export type Saving =
  { kind: "saved" } | { kind: "tried"; of: string } | { kind: "saving" } | { kind: "unsaved"; why: string };

interface Standing {
  document: Scene;
  canUndo: boolean;
  canRedo: boolean;
}

/**
 * The scene that is worked on: edits show at once and are saved as one goes, each from the
 * revision that it was made on. When somebody saved first, both states are offered.
 */
export function useScene(first: SceneState) {
  const [standing, setStanding] = useState<Standing>(() => standingOf(first));
  // who may only look may try things all the same: nothing of that is kept
  const looking = first.may === "look";
  const [saving, setSaving] = useState<Saving>(looking ? { kind: "tried", of: first.owner } : { kind: "saved" });
  const [conflict, setConflict] = useState<Stale | null>(null);
  const base = useRef(first.revision);
  const unsaved = useRef<{ document: Scene; note: string } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const work = useRef<Promise<void>>(Promise.resolve());
  const id = first.id;

  const arrive = useCallback((state: SceneState) => {
    base.current = state.revision;
    setStanding((now) => ({
      ...standingOf(state),
      document: unsaved.current ? now.document : state.document,
    }));
  }, []);

  const save = useCallback(async () => {
    const write = unsaved.current;
    if (!write) return;
    unsaved.current = null;
    setSaving({ kind: "saving" });
    const told = await api
      .PUT("/api/scenes/{scene_id}", {
        params: { path: { scene_id: id } },
        body: { base_revision: base.current, note: write.note, document: write.document },
      })
      .catch(() => null);
    if (told?.data) {
      base.current = told.data.revision;
      const { can_undo, can_redo } = told.data;
      setStanding((now) => ({ ...now, canUndo: can_undo, canRedo: can_redo }));
      setSaving(unsaved.current ? { kind: "saving" } : { kind: "saved" });
      return;
    }
    unsaved.current ??= write;
    if (told?.response.status === 409) {
      setConflict(told.error as Stale);
      return;
    }
    const why = told ? refused(told.error, told.response.status).message : "The server cannot be reached.";
    setSaving({ kind: "unsaved", why });
  }, [id]);

  const flush = useCallback(() => {
    clearTimeout(timer.current);
    work.current = work.current.then(save);
    return work.current;
  }, [save]);

  const show = useCallback((document: Scene) => {
    setStanding((now) => ({ ...now, document }));
  }, []);

  const keep = useCallback(
    (document: Scene, note: string) => {
      if (looking) {
        show(document);
        return;
      }
      unsaved.current = { document, note };
      setStanding((now) => ({ ...now, document, canUndo: true, canRedo: false }));
      setSaving({ kind: "saving" });
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void flush(), SAVE_AFTER);
    },
    [flush, looking, show],
  );

  const step = useCallback(
    async (what: "undo" | "redo" | "restore", number = 0) => {
      if (looking) return;
      await flush();
      if (unsaved.current) return;
      const params = { path: { scene_id: id } };
      const body = { base_revision: base.current };
      const told =
        what === "restore"
          ? await api.POST("/api/scenes/{scene_id}/restore", { params, body: { ...body, number } })
          : await api.POST(`/api/scenes/{scene_id}/${what}`, { params, body });
      if (told.data) arrive(told.data);
      else if (told.response.status === 409) setConflict(told.error as Stale);
      else setSaving({ kind: "unsaved", why: refused(told.error, told.response.status).message });
    },
    [arrive, flush, id, looking],
  );

  const takeTheirs = useCallback(() => {
    if (!conflict) return;
    unsaved.current = null;
    arrive(conflict.scene);
    setConflict(null);
    setSaving({ kind: "saved" });
  }, [arrive, conflict]);

  const putMineOnTop = useCallback(() => {
    if (!conflict) return;
    base.current = conflict.scene.revision;
    setConflict(null);
    if (unsaved.current) void flush();
    else arrive(conflict.scene);
  }, [arrive, conflict, flush]);

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (unsaved.current) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      void flush();
    };
  }, [flush]);

  return useMemo(
    () => ({ ...standing, id, saving, conflict, show, keep, step, takeTheirs, putMineOnTop }),
    [standing, id, saving, conflict, show, keep, step, takeTheirs, putMineOnTop],
  );
}

export type SceneWork = ReturnType<typeof useScene>;

function standingOf(state: SceneState): Standing {
  const mine = state.may !== "look";
  return { document: state.document, canUndo: mine && state.can_undo, canRedo: mine && state.can_redo };
}
