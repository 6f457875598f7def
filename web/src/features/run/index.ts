export { BenchRun } from "./run";
