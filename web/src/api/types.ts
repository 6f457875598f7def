import type { components } from "./schema";

type Schemas = components["schemas"];

export type Scene = Schemas["Scene"];
export type SceneState = Schemas["SceneState"];
export type Pour = Schemas["Pour"];
export type Figure = Schemas["Figure"];
export type Outcome = Schemas["Outcome"];
export type PourOutcome = Schemas["PourOutcome"];
export type Flag = Schemas["Flag"];
export type Remedy = Schemas["Remedy"];
export type View = Schemas["View"];
export type Refusal = Schemas["Refusal"];
export type Stale = Schemas["Stale"];
export type Shelf = Schemas["Shelf"];
export type Units = Schemas["Units"];
export type FineRun = Schemas["FineRunState"];
export type Tank = Schemas["Tank"];
export type Bed = Schemas["Bed"];
export type MeasuredDepth = Schemas["MeasuredDepth"];
export type FigureFacts = Schemas["FigureFacts"];
export type NestedSheet = Schemas["NestedSheet"];
export type School = Schemas["School"];
export type MeshState = Schemas["MeshState"];
export type SolidMaterial = Schemas["SolidMaterial"];
