export { BedInspector } from "./bed-inspector";
export { BedSheet } from "./bed-sheet";
export { ChartGround } from "./chart";
export { type BedTools, BedToolsContext } from "./tools";
