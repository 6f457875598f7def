export { SoundingSheet } from "./sheet";
