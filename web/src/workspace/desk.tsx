import { type ReactNode, useMemo, useState } from "react";

import type { Outcome } from "../api/types";
import { type Choice, ChoiceContext } from "../desk/choice";
import { type Cursor, CursorContext, type CursorHands, CursorHandsContext } from "../desk/cursor";
import { type Document, DocumentContext } from "../desk/document";
import { UnitsContext } from "../desk/units";
import type { Answered } from "../desk/use-outcome";
import type { SceneWork } from "../desk/use-scene";
import type { useTrial } from "../desk/use-trial";
import { BedToolsContext, useBedToolsState } from "../features/bed";

interface Laid {
  work: SceneWork;
  tried: ReturnType<typeof useTrial>;
  answered: Answered;
  children: ReactNode;
}

/** Lays the desk: document and outcome, the cursor, the choice; each is read by itself. */
export function Desk({ work, tried, answered, children }: Laid) {
  const { outcome, of } = answered;
  const { trial, shown, show, keep, change, endTrial, refusal, tryOut } = tried;
  const [first] = useState(() => hottestPlace(outcome));
  const [depth_mm, lower] = useState(first.depth_mm);
  const [at_h, scrub] = useState(first.at_h);
  const [pourNumber, choosePour] = useState(first.pour);
  const [figureId, chooseFigure] = useState<string | null>(null);
  const document = useMemo<Document>(
    () => ({
      work,
      scene: shown,
      outcome,
      outcomeOf: of,
      units: shown.brief.units ?? {},
      show,
      keep,
      change,
      trial,
      endTrial,
      refusal,
      tryOut: (remedy) => {
        tryOut(remedy, outcome);
      },
    }),
    [work, shown, outcome, of, show, keep, change, trial, endTrial, refusal, tryOut],
  );
  const fill_mm = shown.tank.fill_height_mm;
  const cursor = useMemo<Cursor>(() => ({ depth_mm: Math.min(depth_mm, fill_mm), at_h }), [depth_mm, fill_mm, at_h]);
  const hands = useMemo<CursorHands>(() => ({ lower, scrub }), []);
  const count = shown.pours.length;
  const choice = useMemo<Choice>(
    () => ({ pourNumber: Math.min(pourNumber, count), figureId, choosePour, chooseFigure }),
    [pourNumber, count, figureId],
  );
  const tools = useBedToolsState(shown.tank.inner_behind_mm);
  return (
    <DocumentContext value={document}>
      <UnitsContext value={document.units}>
        <CursorHandsContext value={hands}>
          <ChoiceContext value={choice}>
            <CursorContext value={cursor}>
              <BedToolsContext value={tools}>{children}</BedToolsContext>
            </CursorContext>
          </ChoiceContext>
        </CursorHandsContext>
      </UnitsContext>
    </DocumentContext>
  );
}

/** Where a scene is opened: at the hottest place of its pours. */
function hottestPlace(outcome: Outcome) {
  let found = { depth_mm: 0, at_h: 0, peak_c: -Infinity, pour: 1 };
  for (const {
    heat: { cure },
    clock,
    number,
  } of outcome.pours) {
    if (cure && cure.peak_c > found.peak_c) {
      found = {
        depth_mm: Math.round(cure.peak_place.depth_mm),
        at_h: clock.start_h + cure.peak_at_h,
        peak_c: cure.peak_c,
        pour: number,
      };
    }
  }
  return found;
}
