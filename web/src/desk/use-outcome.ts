import { ask } from "../api/ask";
import { useEffect, useState } from "react";

import { api } from "../api/client";
import { LatestOnly } from "../api/latest-only";
import type { Outcome, Scene } from "../api/types";

export interface Answered {
  outcome: Outcome;
  /** the document that it is the outcome of */
  of: Scene;
}

async function evaluate(scene: Scene): Promise<Outcome> {
  return ask(api.POST("/api/evaluate", { body: scene }));
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
  const { tank, bed, brief, colourants, pours, figures, resins } = scene;
  return JSON.stringify([
    tank.shape,
    tank.taper_deg,
    tank.inner_width_mm,
    tank.inner_behind_mm,
    tank.fill_height_mm,
    bed.heights_mm,
    bed.mesh,
    bed.paint_srgb,
    brief.light,
    brief.backdrop_srgb,
    brief.sides,
    brief.display_years,
    colourants,
    pours.map((pour) => [pour.top_depth_mm, pour.doses, pour.resin_id]),
    resins.map((one) => [one.yellow_per_cm, one.yellowing_per_cm_year]),
    figures?.map((one) => [
      one.solids,
      one.place,
      one.turn_deg,
      one.tilt_deg,
      one.roll_deg,
      one.vents,
      one.paint_srgb,
      one.zones,
      one.own_colours,
    ]),
  ]);
}

/** Address of the core's picture of the water, for an image; null until the first has come. */
export function usePicture(
  document: Scene,
  view: "front" | "side" | "above",
): { address: string; view: string } | null {
  const [made, setMade] = useState<{ address: string; view: string } | null>(null);
  const [line] = useState(
    () =>
      new LatestOnly<{ scene: Scene; view: "front" | "side" | "above" }, { address: string; view: string } | null>(
        async ({ scene, view: asked }) => {
          const { data } = await api.POST("/api/picture", {
            params: { query: { view: asked, width: 720, file: "jpeg" } },
            body: scene,
            parseAs: "blob",
          });
          return data ? { address: URL.createObjectURL(data as Blob), view: asked } : null;
        },
        (next) => {
          setMade((old) => {
            if (old)
              setTimeout(() => {
                URL.revokeObjectURL(old.address);
              }, 2000);
            return next;
          });
        },
        () => undefined,
      ),
  );
  const key = view + pictureKey(document);
  const [asked, setAsked] = useState<string | null>(null);
  useEffect(() => {
    if (asked === key) return;
    line.ask({ scene: document, view });
    // eslint-disable-next-line react-hooks/set-state-in-effect -- remembers what was asked, so that a wait or a room asks nothing
    setAsked(key);
  }, [asked, key, line, document, view]);
  return made;
}
