export { Bubbles } from "./bubbles";
export { Gondola } from "./gondola";
export { LayerLines } from "./lines";
export { Plan } from "./plan";
export { TankSection } from "./tank-section";
export { Marks } from "./marks";
