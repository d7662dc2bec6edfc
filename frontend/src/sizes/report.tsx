/** What became of everything at a size: what was lost or changed first, then what moved with the shape. */
import type { Schemas } from "../api/client";

type Feature = Schemas["FeatureOut"];

const EDGES: Record<Feature["state"], string> = {
  lost: "border-madder bg-madder-ground",
  changed: "border-weld bg-weld-ground",
  moved: "border-line",
  kept: "border-line",
};

function Line({ row }: { row: Feature }) {
  return (
    <li className={`border-l-4 px-2 py-0.5 text-sm ${EDGES[row.state]}`}>
      <span className="font-semibold">{row.part}</span>: {row.kind} {row.state}
      {row.before && row.after ? (
        <>
          <br />
          {row.before} <span aria-hidden="true">→</span>
          <span className="sr-only"> became </span> {row.after}
        </>
      ) : (
        (row.before || row.after) && `, ${row.before || row.after}`
      )}
      {row.why && (
        <>
          <br />
          {row.why}
        </>
      )}
    </li>
  );
}

export function Report({ column }: { column: Schemas["SizeColumn"] }) {
  if (column.kind === "base") return "";
  const open = column.features.filter((f) => f.state === "lost" || f.state === "changed");
  const quiet = column.features.filter((f) => f.state === "moved" || f.state === "kept");
  const said = new Set(open.map((f) => f.why));
  const notes = column.notes.filter(
    (n) =>
      ![...said].some((why) => why && n.includes(why)) &&
      !open.some((f) => n.startsWith(`${f.part}: ${f.kind} ${f.state}`)),
  );
  return (
    <div className="flex max-w-80 flex-col gap-1">
      {!open.length && !notes.length && (
        <p>{column.kind === "yarn" ? "The same counts." : "Nothing was lost or changed."}</p>
      )}
      <ul className="flex flex-col gap-1">
        {open.map((f, i) => (
          <Line key={`${f.part} ${f.kind} ${i}`} row={f} />
        ))}
        {notes.map((n) => (
          <li key={n} className="border-l-4 border-weld bg-weld-ground px-2 py-0.5 text-sm">
            {n}
          </li>
        ))}
      </ul>
      {quiet.length > 0 && (
        <details>
          <summary className="cursor-pointer text-sm">{quiet.length} moved with the shape or kept</summary>
          <ul className="mt-1 flex flex-col gap-1">
            {quiet.map((f, i) => (
              <Line key={`${f.part} ${f.kind} ${i}`} row={f} />
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
