import { Parts } from "../../ui/parts";
import { Cups } from "./cups";
import { HappenedPart } from "./happened";
import { Runs } from "./runs";

/** The bench from the desk: runs, cups, and what happened beside what was planned. */
export function BenchInspector() {
  return (
    <Parts
      label="the bench"
      parts={[
        { word: "run", part: <Runs /> },
        { word: "cups", part: <Cups /> },
        { word: "happened", part: <HappenedPart /> },
      ]}
    />
  );
}
