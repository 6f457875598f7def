export { DoseTable } from "./dose-table";
export { WaterInspector } from "./water-inspector";
