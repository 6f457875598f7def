export { WaterInspector } from "./water-inspector";
