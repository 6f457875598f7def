/** Lays a desk for tests of what stands on it: the sample scene with its computed outcome. */
import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { scaleLinear } from "d3-scale";
import { type ReactNode, useState } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";

import type { BenchStep, Outcome, Scene, Shelf, Units } from "../api/types";
import { ChoiceContext } from "../desk/choice";
import { CursorContext, CursorHandsContext } from "../desk/cursor";
import { type Document, DocumentContext } from "../desk/document";
import { UnitsContext } from "../desk/units";
import { DepthContext } from "../sounding/scales";
import { system } from "../theme";
import fixture from "./quarry-pool.json";

export const SCENE = fixture.scene as unknown as Scene;
export const OUTCOME = fixture.outcome as unknown as Outcome;
export const STEPS = fixture.steps as unknown as BenchStep[];
export const SHELF = fixture.shelf as unknown as Shelf;
export const METRIC: Units = { length: "mm", temperature: "c", volume: "ml", mass: "g" };
export const US: Units = { length: "in", temperature: "f", volume: "floz", mass: "oz" };

/** What was asked of the desk. */
export function hands() {
  return {
    show: vi.fn<(scene: Scene) => void>(),
    keep: vi.fn<(scene: Scene, note: string) => void>(),
    change: vi.fn(),
    tryOut: vi.fn(),
    endTrial: vi.fn(),
    lower: vi.fn(),
    scrub: vi.fn(),
    choosePour: vi.fn(),
    chooseFigure: vi.fn(),
  };
}

export interface Laid {
  document?: Partial<Document>;
  scene?: Scene;
  units?: Units;
  pourNumber?: number;
  figureId?: string | null;
  depth_mm?: number;
  at_h?: number;
  /** of the page, with its search */
  address?: string;
}

/** A part of the page on its desk; gives the hands that it uses. */
export function lay(part: ReactNode, laid: Laid = {}) {
  const asked = hands();
  const scene = laid.scene ?? SCENE;
  const document: Document = {
    work: {
      id: 7,
      document: scene,
      saving: { kind: "saved" },
      canUndo: false,
      canRedo: false,
      step: vi.fn(),
    } as unknown as Document["work"],
    scene,
    outcome: OUTCOME,
    outcomeOf: scene,
    units: laid.units ?? METRIC,
    show: asked.show,
    keep: asked.keep,
    change: asked.change,
    trial: null,
    tryOut: asked.tryOut,
    endTrial: asked.endTrial,
    refusal: null,
    ...laid.document,
  };
  const choice = {
    pourNumber: laid.pourNumber ?? 2,
    figureId: laid.figureId ?? null,
    choosePour: asked.choosePour,
    chooseFigure: asked.chooseFigure,
  };
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const shown = render(
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <MemoryRouter initialEntries={[laid.address ?? "/"]}>
          <DocumentContext value={document}>
            <UnitsContext value={document.units}>
              <CursorHandsContext value={{ lower: asked.lower, scrub: asked.scrub }}>
                <ChoiceContext value={choice}>
                  <CursorContext value={{ depth_mm: laid.depth_mm ?? 70, at_h: laid.at_h ?? 32 }}>{part}</CursorContext>
                </ChoiceContext>
              </CursorHandsContext>
            </UnitsContext>
          </DocumentContext>
        </MemoryRouter>
      </QueryClientProvider>
    </ChakraProvider>,
  );
  return { ...asked, ...shown };
}

/** Opens a part of an inspector by its word. */
export async function part(word: string) {
  const words = within(screen.getByRole("group", { name: /^Parts of/ }));
  await userEvent.click(words.getByRole("button", { name: word }));
}

/** A drawing on the depth axis of the sample tank. */
export function Axis({ children }: { children: ReactNode }) {
  const [frame] = useState(() => ({ depth: scaleLinear([0, 120], [66, 306]), top: 66, bottom: 306 }));
  return (
    <DepthContext value={frame}>
      <svg width={900} height={700}>
        {children}
      </svg>
    </DepthContext>
  );
}

export const FRAME = { x0: 96, top: 66, bottom: 306, scale: 2, width_mm: 180, fill_mm: 120 };

type Answer = unknown | ((body: unknown, url: URL) => unknown);

/** Answers of the server by "METHOD /path"; what is not named is refused. Gives the questions that came. */
export function serve(answers: Record<string, Answer>) {
  const questions: { path: string; body: unknown; headers: Headers }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const url = new URL(request.url);
    const path = `${request.method} ${url.pathname}`;
    const text = request.method === "GET" ? "" : await request.text();
    const body: unknown = text.startsWith("{") ? JSON.parse(text) : text;
    questions.push({ path, body, headers: request.headers });
    if (!(path in answers)) {
      return new Response(JSON.stringify({ message: `Nothing answers ${path}.`, problems: [] }), { status: 422 });
    }
    const answer = answers[path];
    const told: unknown =
      typeof answer === "function" ? (answer as (body: unknown, url: URL) => unknown)(body, url) : answer;
    if (told instanceof Response) return told;
    return new Response(JSON.stringify(told), { status: 200, headers: { "Content-Type": "application/json" } });
  });
  return questions;
}

/** The stream of a job, which a test feeds by hand. */
export class Events {
  static open: Events | null = null;
  onmessage: ((event: MessageEvent<string>) => void) | null = null;
  closed = false;
  constructor(readonly address: string) {
    Events.open = this;
  }
  tell(state: unknown) {
    this.onmessage?.({ data: JSON.stringify(state) } as MessageEvent<string>);
  }
  close() {
    this.closed = true;
  }
}
