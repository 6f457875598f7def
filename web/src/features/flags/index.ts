export { Flags, FlagsBelow } from "./flags";
