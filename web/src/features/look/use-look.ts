import { useCallback, useEffect, useRef, useState } from "react";

import { api } from "../../api/client";
import type { Scene, Stand } from "../../api/types";

type Care = "moving" | "draft" | "clearer";

/** Dots of a picture: small while something moves, larger once it rests, larger still when it clears up. */
const DOTS = { small: [320, 200], rest: [640, 400], clear: [800, 500] } as const;
const REST_MS = 180;

export interface Look {
  address: string | null;
  /** how far it has cleared up: while it moves, at rest, and as clear as it gets here */
  state: "moving" | "draft" | "clear";
  problem: string | null;
}

interface Question {
  scene: Scene;
  stand: Stand;
  care: Care;
  dots: readonly [number, number];
}

/** Parts of a document that its look depends on. */
export function lookKey(scene: Scene): string {
  const { light, sides, viewing_sides, backdrop_srgb, display_years } = scene.brief;
  const seen = { light, sides, viewing_sides, backdrop_srgb, display_years };
  return JSON.stringify({ ...scene, name: "", wish: null, order: null, brief: seen });
}

/** What the light on the piece depends on, whatever the eye does. */
const lightKey = (scene: Scene, stand: Stand) => lookKey(scene) + stand.hour + String(stand.lamp_in);

/**
 * The finished block from an eye: first quickly and small, then larger, then clear. What is newer ends what is older,
 * here and on the server; the quick one is let come, so that something moves while one drags.
 */
export function useLook(scene: Scene | null, stand: Stand | null): Look {
  const [look, setLook] = useState<Look>({ address: null, state: "moving", problem: null });
  const line = useRef(new Drawing());
  useEffect(() => {
    const drawing = line.current;
    return () => {
      drawing.stop();
    };
  }, []);
  const tell = useCallback((next: Look) => {
    setLook((old) => {
      if (old.address && next.address) setTimeout(URL.revokeObjectURL, 2000, old.address);
      return { ...next, address: next.address ?? old.address };
    });
  }, []);
  const key = scene && stand ? lookKey(scene) + JSON.stringify(stand) : null;
  const asked = useRef<string | null>(null);
  useEffect(() => {
    if (key === null || !scene || !stand || asked.current === key) return;
    asked.current = key;
    line.current.show(scene, stand, tell);
  }, [key, scene, stand, tell]);
  return look;
}

/** Asks for pictures of one place on the page, one after the other, and forgets those that nobody wants any more. */
class Drawing {
  private readonly asker = Math.random().toString(36).slice(2) + Date.now().toString(36);
  private number = 0;
  private lit: string | null = null;
  private wanted: { scene: Scene; stand: Stand; tell: (look: Look) => void } | null = null;
  private quick = false;
  private rest: ReturnType<typeof setTimeout> | undefined;
  private ending = new AbortController();

  show(scene: Scene, stand: Stand, tell: (look: Look) => void) {
    this.wanted = { scene, stand, tell };
    tell({ address: null, state: "moving", problem: null });
    clearTimeout(this.rest);
    if (this.quick) return;
    this.ending.abort();
    void this.quickly();
  }

  stop() {
    clearTimeout(this.rest);
    this.ending.abort();
    this.wanted = null;
  }

  private async quickly() {
    this.quick = true;
    while (this.wanted) {
      const { scene, stand, tell } = this.wanted;
      const now = this.wanted;
      const care = lightKey(scene, stand) === this.lit ? "draft" : "moving";
      await this.ask({ scene, stand, care, dots: DOTS.small }, "moving", tell);
      if (now === this.wanted) break;
    }
    this.quick = false;
    this.rest = setTimeout(() => {
      void this.clearUp();
    }, REST_MS);
  }

  private async clearUp() {
    const now = this.wanted;
    if (!now) return;
    this.ending = new AbortController();
    const { scene, stand, tell } = now;
    if (!(await this.ask({ scene, stand, care: "draft", dots: DOTS.rest }, "draft", tell))) return;
    this.lit = lightKey(scene, stand);
    if (now === this.wanted) await this.ask({ scene, stand, care: "clearer", dots: DOTS.clear }, "clear", tell);
  }

  /** True if it came and is shown. */
  private async ask({ scene, stand, care, dots }: Question, state: Look["state"], tell: (look: Look) => void) {
    const number = ++this.number;
    try {
      const { data, error, response } = await api.POST("/api/look", {
        params: { query: { care, width: dots[0], height: dots[1], asker: this.asker, number } },
        body: { scene, stand },
        parseAs: "blob",
        signal: state === "moving" ? undefined : this.ending.signal,
      });
      if (response.status === 409) return false;
      if (!response.ok) {
        tell({
          address: null,
          state,
          problem: (error as { message?: string } | undefined)?.message ?? "It was not drawn.",
        });
        return false;
      }
      tell({ address: URL.createObjectURL(data as Blob), state, problem: null });
      return true;
    } catch (flaw) {
      if (!(flaw instanceof DOMException)) tell({ address: null, state, problem: "The server cannot be reached." });
      return false;
    }
  }
}
