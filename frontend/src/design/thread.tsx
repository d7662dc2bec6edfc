/** The nine stops of a design, drawn as a thread with beads. */
import { useEffect, useRef } from "react";
import { NavLink, useLocation, useParams } from "react-router";
import type { Schemas } from "../api/client";

type Stop = Schemas["StopState"];
const NAMES: Record<Stop["stop"], string> = {
  brief: "Brief",
  gauge: "Gauge",
  shapes: "Shapes",
  rounds: "Rounds",
  bases: "Bases",
  assembly: "Assembly",
  sizes: "Sizes",
  booklet: "Booklet",
  proving: "Proving",
};
export const STOPS = Object.keys(NAMES) as Stop["stop"][];
const STATES: Record<Stop["state"], string> = {
  untouched: "untouched",
  "under-way": "under way",
  faults: "has faults",
  sound: "sound",
};

/** The state is told by the bead's form as well as its colour. */
function Bead({ state }: { state: Stop["state"] }) {
  return (
    <svg viewBox="0 0 20 20" className="size-4 shrink-0" aria-hidden="true">
      {state === "untouched" && (
        <circle
          cx="10"
          cy="10"
          r="6.5"
          fill="var(--panel)"
          stroke="var(--strong-line)"
          strokeWidth="2"
          strokeDasharray="3 2.5"
        />
      )}
      {state === "under-way" && (
        <>
          <circle cx="10" cy="10" r="6.5" fill="var(--panel)" stroke="var(--weld)" strokeWidth="2.5" />
          <path d="M10 3.5a6.5 6.5 0 0 1 0 13z" fill="var(--weld)" />
        </>
      )}
      {state === "faults" && (
        <>
          <circle cx="10" cy="10" r="8" fill="var(--madder)" />
          <path d="M7 7l6 6M13 7l-6 6" stroke="var(--panel)" strokeWidth="2.4" />
        </>
      )}
      {state === "sound" && <circle cx="10" cy="10" r="7.5" fill="var(--moss)" />}
    </svg>
  );
}

export function Thread({ stops }: { stops: Stop[] }) {
  const { id } = useParams();
  const { pathname } = useLocation();
  const beads = useRef<HTMLOListElement>(null);
  // Where not all stops have room, the one she is at is in sight.
  useEffect(() => {
    if (!pathname) return;
    const here = beads.current?.querySelector('[aria-current="page"]');
    here?.scrollIntoView?.({ inline: "center", block: "nearest" });
  }, [pathname]);
  return (
    <nav aria-label="Stops of this design" className="relative no-print">
      <svg
        className="pointer-events-none absolute inset-x-0 top-[13px] h-4 w-full"
        preserveAspectRatio="none"
        viewBox="0 0 800 16"
        aria-hidden="true"
      >
        <path
          d="M0 8C25 2 75 2 100 8S175 14 200 8 275 2 300 8 375 14 400 8 475 2 500 8 575 14 600 8 675 2 700 8 775 14 800 8"
          fill="none"
          stroke="var(--strong-line)"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <ol ref={beads} className="relative flex justify-around gap-1 overflow-x-auto py-1">
        {stops.map((s) => (
          <li key={s.stop}>
            <NavLink
              to={`/designs/${id}/${s.stop}`}
              className={({ isActive }) =>
                `flex items-center gap-1.5 rounded-full border px-2.5 py-1 ${isActive ? "border-woad bg-woad-ground font-semibold" : "border-line bg-ground hover:bg-sunk"}`
              }
            >
              <Bead state={s.state} />
              {NAMES[s.stop]}
              <span className="sr-only">, {STATES[s.state]}</span>
            </NavLink>
          </li>
        ))}
      </ol>
    </nav>
  );
}
