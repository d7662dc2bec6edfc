/** What else there is to say or to see while making, each a sheet of its own. */
import { lazy, Suspense, useEffect } from "react";
import { buttonClass } from "./parts";
import type { Piece } from "./progress";
import type { Way } from "./server";
import type { MakingState } from "./use-making";

/** Sheets are fetched when the page is at rest: the round in hand is seen without them. */
const LOADED = {
  otherwise: () => import("./sheets/otherwise"),
  note: () => import("./sheets/note"),
  measure: () => import("./sheets/measure"),
  overview: () => import("./sheets/overview"),
  remark: () => import("./sheets/remark"),
  report: () => import("./sheets/report"),
  more: () => import("./sheets/more"),
};
const Otherwise = lazy(() => LOADED.otherwise().then((m) => ({ default: m.Otherwise })));
const Note = lazy(() => LOADED.note().then((m) => ({ default: m.Note })));
const Measure = lazy(() => LOADED.measure().then((m) => ({ default: m.Measure })));
const Overview = lazy(() => LOADED.overview().then((m) => ({ default: m.Overview })));
const RemarkSheet = lazy(() => LOADED.remark().then((m) => ({ default: m.RemarkSheet })));
const Report = lazy(() => LOADED.report().then((m) => ({ default: m.Report })));
const More = lazy(() => LOADED.more().then((m) => ({ default: m.More })));

export type Name = "overview" | "otherwise" | "note" | "measure" | "remark" | "report" | "more";
export type Opened = Name | null;

export function Menu({ onOpen, tester }: { onOpen: (name: Name) => void; tester: boolean }) {
  const rows: [Name, string][] = [
    ["otherwise", "Did otherwise"],
    ...(tester ? ([["remark", "Remark"]] as [Name, string][]) : []),
    ["note", "Note, photo"],
    ["measure", "Measure"],
    ...(tester ? ([["report", "Report"]] as [Name, string][]) : []),
    ["more", "More"],
  ];
  return (
    <nav
      aria-label="While making"
      className={tester ? "grid grid-cols-3 gap-1.5 md:grid-cols-6" : "flex flex-wrap gap-1.5"}
    >
      {rows.map(([name, label]) => (
        <button
          key={name}
          type="button"
          className={`${buttonClass} flex-1 whitespace-nowrap px-2 text-sm`}
          onClick={() => onOpen(name)}
        >
          {label}
        </button>
      ))}
    </nav>
  );
}

export type SheetProps = { state: MakingState; piece: Piece | null; round: number; onClose: () => void };

export function Sheets({
  way,
  opened,
  pieces,
  onPiece,
  ...common
}: SheetProps & { way: Way; opened: Opened; pieces: Piece[]; onPiece: (piece: Piece) => void }) {
  useEffect(() => {
    const timer = setTimeout(
      () => void Promise.allSettled(Object.values(LOADED).map((load) => load())),
      1500,
    );
    return () => clearTimeout(timer);
  }, []);
  return (
    <Suspense fallback={null}>
      {opened === "overview" && <Overview {...common} pieces={pieces} onPiece={onPiece} />}
      {opened === "otherwise" && <Otherwise {...common} />}
      {opened === "note" && <Note {...common} />}
      {opened === "measure" && <Measure {...common} />}
      {opened === "remark" && <RemarkSheet {...common} />}
      {opened === "report" && <Report {...common} />}
      {opened === "more" && <More {...common} way={way} />}
    </Suspense>
  );
}
