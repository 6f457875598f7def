import { useCallback, useRef, useState } from "react";

import type { Outcome, Remedy, Scene } from "../api/types";
import { type Changing, makeChange, takeRemedy } from "./changes";
import type { Trial } from "./document";
import type { SceneWork } from "./use-scene";

/**
 * What is tried, and where changes go: into the scene, or, while something is tried, into that.
 * A remedy is taken on the document that is shown, whose digest it carries.
 */
export function useTrial(work: SceneWork) {
  const [trial, setTrial] = useState<Trial | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const shown = trial ? trial.document : work.document;
  const latest = useRef({ shown, trial });
  // eslint-disable-next-line react-hooks/refs -- what is asked late has to meet the document as it is then
  latest.current = { shown, trial };

  const put = useCallback(
    (document: Scene, note: string | null) => {
      setRefusal(null);
      if (latest.current.trial) setTrial((now) => (now ? { ...now, document, edited: true } : now));
      else if (note === null) work.show(document);
      else work.keep(document, note);
    },
    [work],
  );
  const show = useCallback(
    (scene: Scene) => {
      put(scene, null);
    },
    [put],
  );
  const keep = useCallback(
    (scene: Scene, note: string) => {
      put(scene, note);
    },
    [put],
  );
  const refuse = useCallback((flaw: unknown) => {
    setRefusal(flaw instanceof Error ? flaw.message : "The server cannot be reached.");
  }, []);
  const change = useCallback(
    (asked: Changing) => {
      const scene = latest.current.shown;
      makeChange(scene, asked)
        .then(async (remedy) => {
          put(await takeRemedy(latest.current.shown, remedy), remedy.label);
        })
        .catch(refuse);
    },
    [put, refuse],
  );
  const tryOut = useCallback(
    (remedy: Remedy, before: Outcome) => {
      takeRemedy(latest.current.shown, remedy)
        .then((document) => {
          setRefusal(null);
          setTrial((now) => ({ label: remedy.label, before: now?.before ?? before, document, edited: false }));
        })
        .catch(refuse);
    },
    [refuse],
  );
  const endTrial = useCallback(
    (kept: boolean) => {
      const tried = latest.current.trial;
      setRefusal(null);
      setTrial(null);
      if (tried && kept) work.keep(tried.document, tried.label);
    },
    [work],
  );
  return { trial, shown, show, keep, change, tryOut, endTrial, refusal };
}
