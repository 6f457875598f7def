import { ExplainPart } from "../features/explain";
import { LearnColour, LearnResin } from "../features/learn";
import { Faults, Lessons, Revisions, Search, Story } from "../features/log";
import { PourTable } from "../features/pours";
import { Parts } from "../ui/parts";
import type { Shown } from "./sounding-sheet";
import type { Stage } from "./stage";
import { front, ROUND, side } from "./views";

const SHOWN: Shown = { profiles: "piece", movesFigures: false, offDisplay: false, marks: true, Under: PourTable };

/** The log: what was seen, what is wrong and why, what the bottles taught, what was learnt before. */
function LogInspector() {
  return (
    <Parts
      label="the log"
      parts={[
        { word: "story", part: <Story /> },
        { word: "faults", part: <Faults /> },
        { word: "why", part: <ExplainPart /> },
        { word: "resin", part: <LearnResin /> },
        { word: "colour", part: <LearnColour /> },
        { word: "lessons", part: <Lessons /> },
        { word: "search", part: <Search /> },
        { word: "revisions", part: <Revisions /> },
      ]}
    />
  );
}

export const log: Stage = {
  word: "log",
  Inspector: LogInspector,
  typedFirst: true,
  views: [front(SHOWN), side(SHOWN), ROUND],
};
