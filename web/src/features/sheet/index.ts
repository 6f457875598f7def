export { PourSheet as default } from "./pour-sheet";
