export { Air, PourInspector } from "./pour-inspector";
export { Chances } from "./chances";
export { Clarity } from "./clarity";
export { FineCheck } from "./fine-check";
export { Lines } from "./lines";
export { Order } from "./order";
export { PourTable } from "./pour-table";
