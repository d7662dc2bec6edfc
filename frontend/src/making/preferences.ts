/** How she likes the page, kept on this device: thumb, light, sound, stitch by stitch. */
import { useSyncExternalStore } from "react";

export type Preferences = {
  left: boolean;
  sound: boolean;
  vibrate: boolean;
  awake: boolean;
  clicks: boolean;
  aloud: boolean;
};

const KEY = "spirrel-making-preferences";
const USUAL: Preferences = {
  left: false,
  sound: false,
  vibrate: false,
  awake: true,
  clicks: false,
  aloud: false,
};
const listeners = new Set<() => void>();
let now: Preferences | null = null;

export function preferences(): Preferences {
  if (now) return now;
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "{}");
    now = { ...USUAL, ...(typeof kept === "object" ? kept : {}) };
  } catch {
    now = USUAL;
  }
  return now;
}

export function prefer(change: Partial<Preferences>): void {
  now = { ...preferences(), ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(now));
  } catch {
    // A browser that keeps nothing still does as she says while the page is open.
  }
  for (const tell of listeners) tell();
}

export function usePreferences(): Preferences {
  return useSyncExternalStore((tell) => {
    listeners.add(tell);
    return () => listeners.delete(tell);
  }, preferences);
}
