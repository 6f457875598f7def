import { useEffect, useState } from "react";

import { api } from "../../api/client";
import { LatestOnly } from "../../api/latest-only";
import { refused } from "../../api/refusal";
import type { Outcome, Scene } from "../../api/types";

export interface Answered {
  outcome: Outcome;
  /** the document that it is the outcome of */
  of: Scene;
}

async function evaluate(scene: Scene): Promise<Outcome> {
  const { data, error, response } = await api.POST("/api/evaluate", { body: scene });
  if (data) return data;
  throw refused(error, response.status);
}

/** The outcome of a document; while it is computed, the one before stays. */
export function useOutcome(document: Scene): { answered: Answered | null; problem: string | null } {
  const [answered, setAnswered] = useState<Answered | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [line] = useState(
    () =>
      new LatestOnly<Scene, Outcome>(
        evaluate,
        (outcome, of) => {
          setAnswered({ outcome, of });
          setProblem(null);
        },
        (error) => {
          setProblem(error instanceof Error ? error.message : "The server cannot be reached.");
        },
      ),
  );
  useEffect(() => {
    line.ask(document);
  }, [line, document]);
  return { answered, problem };
}

/** Parts of a document that its picture depends on. */
export function pictureKey(scene: Scene): string {
  const { tank, bed, brief, colourants, pours } = scene;
  return JSON.stringify([
    tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm, bed.heights_mm, bed.paint_srgb,
    brief.light, brief.backdrop_srgb, colourants, pours.map((pour) => [pour.top_depth_mm, pour.doses]),
  ]);
}

/** Address of the core's picture of the water, for an image; null until the first has come. */
export function usePicture(document: Scene): string | null {
  const [address, setAddress] = useState<string | null>(null);
  const [line] = useState(
    () =>
      new LatestOnly<Scene, string | null>(
        async (scene) => {
          const { data } = await api.POST("/api/picture", { body: scene, parseAs: "blob" });
          return data ? URL.createObjectURL(data as Blob) : null;
        },
        (made) => {
          setAddress((old) => {
            if (old) setTimeout(() => { URL.revokeObjectURL(old); }, 2000);
            return made;
          });
        },
        () => undefined,
      ),
  );
  const key = pictureKey(document);
  const [asked, setAsked] = useState<string | null>(null);
  useEffect(() => {
    if (asked === key) return;
    line.ask(document);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- remembers what was asked, so that a moved figure asks nothing
    setAsked(key);
  }, [asked, key, line, document]);
  return address;
}
