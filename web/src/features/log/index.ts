export { LogInspector } from "./log-inspector";
