export { FinishInspector } from "./finish";
