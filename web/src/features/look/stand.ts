import { useEffect, useState } from "react";

import type { Stand } from "../../api/types";

const STEEPEST = 80;
const NEAREST_MM = 150;
const FARTHEST_MM = 6000;

/** Degrees below which an eye looks level: how far it looks down on the middle of the piece. */
export function downOf(stand: Stand, middle_mm: number): number {
  const rise = (stand.eye_height_mm - middle_mm) / stand.distance_mm;
  return (Math.asin(Math.max(-1, Math.min(1, rise))) * 180) / Math.PI;
}

const round = (value: number) => Math.round(value * 10) / 10;

/** An eye that walked round, went up or down, came closer; never under the shelf, straight above or into the piece. */
export function walked(stand: Stand, middle_mm: number, by: { turn?: number; rise?: number; closer?: number }): Stand {
  const nearest = Math.max(NEAREST_MM, 2.4 * middle_mm);
  const distance_mm = Math.min(FARTHEST_MM, Math.max(nearest, stand.distance_mm * (by.closer ?? 1)));
  const down = Math.min(STEEPEST, downOf(stand, middle_mm) + (by.rise ?? 0));
  const height = middle_mm + distance_mm * Math.sin((down * Math.PI) / 180);
  return {
    ...stand,
    azimuth_deg: round(((((stand.azimuth_deg + (by.turn ?? 0) + 180) % 360) + 360) % 360) - 180),
    eye_height_mm: round(Math.max(0, height)),
    distance_mm: round(distance_mm),
  };
}

/** What a key does to the eye; null where it does nothing. */
export function keyed(stand: Stand, middle_mm: number, key: string): Stand | null {
  const by = {
    ArrowLeft: { turn: -8 },
    ArrowRight: { turn: 8 },
    ArrowUp: { rise: 6 },
    ArrowDown: { rise: -6 },
    "+": { closer: 0.9 },
    "=": { closer: 0.9 },
    "-": { closer: 1.12 },
  }[key];
  return by ? walked(stand, middle_mm, by) : null;
}

const keyOf = (scene: number) => `gondola-eye-${scene}`;

/** The eye of a scene, kept while the page is open; `usual` until somebody has moved it. */
export function useStand(scene: number, usual: Stand | undefined) {
  const [own, setOwn] = useState<Stand | null>(() => {
    const kept = sessionStorage.getItem(keyOf(scene));
    return kept ? (JSON.parse(kept) as Stand) : null;
  });
  useEffect(() => {
    if (own) sessionStorage.setItem(keyOf(scene), JSON.stringify(own));
  }, [own, scene]);
  return [own ?? usual ?? null, setOwn] as const;
}
