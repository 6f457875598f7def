export { BedInspector } from "./bed-inspector";
export { BedSheet } from "./bed-sheet";
export { BedToolsContext, type BedTools, useBedToolsState } from "./tools";
