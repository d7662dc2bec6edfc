/** Numbers as people read them. Lengths come in millimetres. */
import type { Schemas } from "../api/client";

export type Estimate = Schemas["EstimateOut"];

const FRACTIONS = ["", "¼", "½", "¾"];

export function cm(mm: number): string {
  const value = mm >= 100 ? Math.round(mm / 5) / 2 : Math.round(mm) / 10;
  return `${value} cm`;
}

export function inches(mm: number): string {
  const quarters = Math.max(1, Math.round((mm / 25.4) * 4));
  return `${Math.floor(quarters / 4) || ""}${FRACTIONS[quarters % 4]} in`;
}

export function rounded(value: number, digits = 0): string {
  return value.toFixed(digits).replace(/\.0+$/, "");
}

/** The share by which an estimate may be off, in percent. */
export function spread(e: Estimate): number {
  return e.value ? Math.round(((e.high - e.low) / 2 / e.value) * 100) : 0;
}
