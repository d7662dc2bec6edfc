/** The booklet's tree as a page. */
type Line = { kind: string; text: string; label: string; work: string; count: string; fold: number };

export type Block =
  | { block: "Paragraph"; text: string }
  | { block: "Facts"; rows: [string, string][] }
  | { block: "Bullets" | "Cautions" | "Steps"; lines: string[] }
  | { block: "Rounds"; lines: Line[] }
  | { block: "CountTable"; rows: [string, number, number][] };

export function Sections({
  sections,
}: {
  sections: { key: string; title: string; level: number; blocks: Block[] }[];
}) {
  return (
    <>
      {sections.map((s, i) => (
        <section key={`${s.key}-${i}`} className="mb-5">
          {s.level === 1 ? (
            <h3 className="mb-2 border-b border-line pb-1 text-2xl">{s.title}</h3>
          ) : (
            <h4 className="mt-4 mb-1 font-title text-xl font-semibold">{s.title}</h4>
          )}
          {s.blocks.map((b, j) => (
            <Shown key={j} block={b} />
          ))}
        </section>
      ))}
    </>
  );
}

function Shown({ block }: { block: Block }) {
  switch (block.block) {
    case "Paragraph":
      return <p className="mb-2 whitespace-pre-line">{block.text}</p>;
    case "Facts":
      return (
        <dl className="mb-2 grid grid-cols-[minmax(6rem,9rem)_1fr] gap-x-4 gap-y-1">
          {block.rows.map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="font-semibold">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      );
    case "Cautions":
    case "Bullets":
      return (
        <ul
          className={`mb-2 list-disc pl-6 ${block.block === "Cautions" ? "rounded-md border-2 border-madder py-2 pr-3" : ""}`}
        >
          {block.lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      );
    case "Steps":
      return (
        <ol className="mb-2 list-decimal pl-6">
          {block.lines.map((line, i) => (
            <li key={i}>{line}</li>
          ))}
        </ol>
      );
    case "Rounds":
      return (
        <ul className="mb-2">
          {block.lines.map((line, i) =>
            line.kind === "round" ? (
              <li
                key={i}
                className="grid grid-cols-[1rem_5rem_1fr_auto] items-baseline gap-2 border-b border-line py-0.5"
              >
                <span className="inline-block size-3 rounded-[3px] border border-ink" aria-hidden="true" />
                <strong>{line.label}</strong>
                <span>
                  {line.work}
                  {line.fold > 1 && ` (${line.fold} rounds)`}
                </span>
                <strong>{line.count}</strong>
              </li>
            ) : (
              <li key={i} className="py-0.5 pl-6 italic">
                {line.text}
              </li>
            ),
          )}
        </ul>
      );
    case "CountTable":
      return (
        <table className="mb-3 text-sm">
          <thead>
            <tr>
              <th className="pr-4 text-left">Round</th>
              <th className="pr-4 text-right">Stitches</th>
              <th className="text-right">+ or −</th>
            </tr>
          </thead>
          <tbody>
            {block.rows.map(([label, live, change]) => (
              <tr key={label}>
                <td>{label}</td>
                <td className="pr-4 text-right">{live}</td>
                <td className="text-right">{change > 0 ? `+${change}` : change < 0 ? `−${-change}` : "="}</td>
              </tr>
            ))}
          </tbody>
        </table>
      );
  }
}
