export { Flags } from "./flags";
