/** The line between a scale and the page that asks what it shows; a scale of one's own speaks on it the same way. */
import { useEffect, useRef } from "react";

const LINE = "spirrel-scale";

export type Reading = { grams: number };

/** Say what the scale shows to every page that is open here. */
export function showReading(grams: number): void {
  const line = new BroadcastChannel(LINE);
  line.postMessage({ grams } satisfies Reading);
  line.close();
}

/** Hear what a scale shows, while there is somebody to hear it. */
export function useScale(heard: ((grams: number) => void) | null): void {
  const now = useRef(heard);
  now.current = heard;
  const listens = heard !== null;
  useEffect(() => {
    if (!listens || !("BroadcastChannel" in window)) return;
    const line = new BroadcastChannel(LINE);
    line.onmessage = (e: MessageEvent<Reading>) => {
      if (Number.isFinite(e.data?.grams) && e.data.grams >= 0) now.current?.(e.data.grams);
    };
    return () => line.close();
  }, [listens]);
}
