import type { Schemas } from "../api/client";

export type FigurePart = Schemas["FigurePart"];
export type Round = Schemas["RoundOut"];
export type Scene = Schemas["SceneOut"];
