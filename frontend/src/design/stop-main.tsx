/** The main part of a stop: the focus comes to its heading on arrival, and what breaks here breaks alone. */
import { type ReactNode, useEffect, useRef } from "react";
import { useLocation } from "react-router";
import { Broken } from "../ui/broken";

export function StopMain({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const home = useRef<HTMLElement>(null);
  const first = useRef(true);
  useEffect(() => {
    // The first screen after a load keeps the browser's own focus.
    if (first.current) {
      first.current = false;
      return;
    }
    if (pathname) home.current?.focus({ preventScroll: true });
  }, [pathname]);
  return (
    <main
      id="main"
      ref={home}
      tabIndex={-1}
      // Where there is no room for panes side by side, a stop is one long page.
      className="relative flex min-h-0 flex-1 flex-col overflow-auto outline-none max-lg:*:flex-none"
    >
      <Broken key={pathname}>{children}</Broken>
    </main>
  );
}
