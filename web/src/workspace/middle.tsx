import { useMemo, useState } from "react";

import { type Place, TouchedContext } from "../desk/touched";
import type { Stage } from "../stages";
import { Word } from "../ui/pill";

/** What stands in the middle of a stage, and the words that lead to its other views. */
export function Middle({ stage }: { stage: Stage }) {
  const [chosen, choose] = useState<Record<string, string>>({});
  const [touched, touch] = useState<Place | null>(null);
  const touching = useMemo(() => ({ touched, touch }), [touched]);
  const view = stage.views.find((one) => one.word === chosen[stage.word]) ?? stage.views[0];
  if (!view) return null;
  const words = stage.views.map(({ word }) => (
    <Word
      key={word}
      onClick={() => {
        choose((now) => ({ ...now, [stage.word]: word }));
      }}
      fontWeight={word === view.word ? 700 : 400}
      aria-pressed={word === view.word}
    >
      {word}
    </Word>
  ));
  return (
    <TouchedContext value={touching}>
      <view.Part words={words} />
    </TouchedContext>
  );
}
