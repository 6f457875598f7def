export { BenchInspector } from "./bench-inspector";
