export { Chances } from "./chances";
export { Clarity } from "./clarity";
export { FineCheck } from "./fine-check";
export { Air, PourInspector } from "./pour-inspector";
export { PourTable } from "./pour-table";
