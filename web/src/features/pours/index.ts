export { Chances } from "./chances";
export { Clarity } from "./clarity";
export { FineCheck } from "./fine-check";
export { Air, PourInspector } from "./pour-inspector";
export { Lines } from "./lines";
export { PourTable } from "./pour-table";
