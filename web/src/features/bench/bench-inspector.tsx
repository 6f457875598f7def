import { Parts } from "../../ui/parts";
import { Cups } from "./cups";
import { HappenedPart } from "./happened";
import { Mixes } from "./mixes";
import { Runs } from "./runs";
import { StockPart } from "./stock";

/** The bench from the desk: runs, cups, mixes, stock, and what happened beside what was planned. */
export function BenchInspector() {
  return (
    <Parts
      label="the bench"
      parts={[
        { word: "run", part: <Runs /> },
        { word: "cups", part: <Cups /> },
        { word: "mixes", part: <Mixes /> },
        { word: "stock", part: <StockPart /> },
        { word: "happened", part: <HappenedPart /> },
      ]}
    />
  );
}
