/** The wire's types as the making page uses them. */
import type { components } from "../api/schema";

type Schemas = components["schemas"];
export type Making = Schemas["MakingOut"];
export type Sheet = Making["sheet"];
export type PartSheet = Sheet["parts"][number];
export type Rung = PartSheet["rungs"][number];
export type Figure = Schemas["MakingFigure"];
export type Stages = Figure["parts"][string];
export type OpenStage = NonNullable<Figure["open"]>[string][number];
export type Answer = NonNullable<Making["answers"]>[number];
export type LogEvent = Schemas["SyncOut"]["events"][number];
export type Kind = LogEvent["kind"];

type WithoutHead<E> = E extends LogEvent ? Omit<E, "id" | "device" | "seq" | "at"> : never;
/** What happened, before the log says when and where it was written. */
export type What = WithoutHead<LogEvent>;
