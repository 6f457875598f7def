export { PourSheet } from "./pour-sheet";
