/** Screens with something that waits: sent when they are shown, when they are left, and when the window goes. */
import { useEffect } from "react";

export type Leaving = { enter: () => void; flush: () => Promise<void>; leave: () => void };

/** `what` stays the same as long as the screen does. */
export function useLeaving(what: Leaving): void {
  useEffect(() => {
    what.enter();
    const last = () => void what.flush();
    window.addEventListener("pagehide", last);
    return () => {
      window.removeEventListener("pagehide", last);
      what.leave();
    };
  }, [what]);
}
