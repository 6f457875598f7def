export { CutSheet } from "./cut-sheet";
export { TankInspector } from "./tank-inspector";
