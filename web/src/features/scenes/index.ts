export { Conflict } from "./conflict";
export { SceneList } from "./scene-list";
export { type Answered, useOutcome, usePicture } from "./use-outcome";
export { type SceneWork, useScene } from "./use-scene";
