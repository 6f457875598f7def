export { BeginPiece } from "./begin";
