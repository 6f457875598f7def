export { type Desk, useDesk } from "./desk";
export { LEAST_GAP_MM, snapped, splitPour, withFigure, withLine, withoutPour, withPour } from "./edits";
export { type Stage } from "./stages";
export { Workspace } from "./workspace";
