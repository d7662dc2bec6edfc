/** Daylight or lamplight, kept in this browser. */
import { useSyncExternalStore } from "react";

export type Ground = "daylight" | "lamplight";
const KEY = "spirrel-ground";
const listeners = new Set<() => void>();

export function readGround(): Ground {
  return document.documentElement.dataset.ground === "lamplight" ? "lamplight" : "daylight";
}

export function setGround(ground: Ground): void {
  document.documentElement.dataset.ground = ground;
  localStorage.setItem(KEY, ground);
  for (const tell of listeners) tell();
}

export function restoreGround(): void {
  const kept = localStorage.getItem(KEY);
  if (kept === "lamplight") document.documentElement.dataset.ground = "lamplight";
}

export function useGround(): Ground {
  return useSyncExternalStore((tell) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  }, readGround);
}
