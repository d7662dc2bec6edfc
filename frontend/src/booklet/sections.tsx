/** The booklet's tree as a page. */
import type { Schemas } from "../api/client";

type Block = Schemas["SectionOut"]["blocks"][number];
type Shown = Schemas["PictureShown"];
/** The address of a picture that is there, null while it is not. */
export type AddressOf = (key: string) => string | null;

export function Sections({
  sections,
  addressOf,
}: {
  sections: readonly Schemas["SectionOut"][];
  addressOf: AddressOf;
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
          <div className={s.key === "techniques" ? "grid gap-3 sm:grid-cols-2 [&_img]:max-h-40" : "contents"}>
            {s.blocks.map((b, j) => (
              <Content key={j} block={b} addressOf={addressOf} />
            ))}
          </div>
        </section>
      ))}
    </>
  );
}

function Content({ block, addressOf }: { block: Block; addressOf: AddressOf }) {
  switch (block.block) {
    case "Paragraph":
      return <p className="mb-2 whitespace-pre-line">{block.text}</p>;
    case "Facts":
      return (
        <dl className="mb-2 grid grid-cols-[minmax(5rem,9rem)_1fr] gap-x-4 gap-y-1">
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
      return <Steps lines={block.lines} pictures={block.pictures} addressOf={addressOf} />;
    case "Pictures":
      return (
        <div className="mb-3 grid grid-cols-[repeat(auto-fit,minmax(7rem,1fr))] gap-3">
          {block.items.map((p) => (
            <Picture key={p.key} shown={p} address={addressOf(p.key)} />
          ))}
        </div>
      );
    case "Drawing":
      return (
        <figure className="mb-3 rounded-md bg-[#f6f1e6] p-3 text-center">
          <img
            src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(block.svg)}`}
            alt={block.alt}
            className="mx-auto max-h-96 max-w-full"
          />
          {block.caption && <figcaption className="text-sm text-[#55493e]">{block.caption}</figcaption>}
        </figure>
      );
    case "Rounds":
      return <Rounds lines={block.lines} />;
    case "CountTable":
      return <CountTable rows={block.rows} />;
  }
}

function Picture({ shown, address }: { shown: Shown; address: string | null }) {
  return (
    <figure className="text-center">
      {address ? (
        <img
          src={address}
          alt={shown.alt}
          loading="lazy"
          className="mx-auto aspect-square w-full object-contain"
        />
      ) : (
        <span className="grid aspect-square place-items-center rounded-md border border-dashed border-line p-2 text-sm text-soft">
          {shown.alt}: being painted
        </span>
      )}
      {shown.caption && <figcaption className="text-sm text-soft">{shown.caption}</figcaption>}
    </figure>
  );
}

function Steps({
  lines,
  pictures,
  addressOf,
}: {
  lines: readonly string[];
  pictures: readonly (readonly Shown[])[];
  addressOf: AddressOf;
}) {
  return (
    <ol className="mb-2 list-decimal pl-6">
      {lines.map((line, i) => (
        <li key={i} className="mb-2">
          <div className="flex flex-wrap gap-3">
            <p className="min-w-48 flex-1">{line}</p>
            {(pictures[i] ?? []).map((p) => (
              <div key={p.key} className="w-40 shrink-0">
                <Picture shown={p} address={addressOf(p.key)} />
              </div>
            ))}
          </div>
        </li>
      ))}
    </ol>
  );
}

function Rounds({ lines }: { lines: readonly Schemas["RoundLineOut"][] }) {
  return (
    <ul className="mb-2">
      {lines.map((line, i) =>
        line.kind === "round" ? (
          <li
            key={i}
            className="grid grid-cols-[1rem_5rem_1fr_auto] items-baseline gap-2 border-b border-line py-0.5"
          >
            <span className="inline-block size-3 rounded-[3px] border border-ink" aria-hidden="true" />
            <strong>{line.label}</strong>
            <span>
              {line.work}
              {line.fold_said && ` (${line.fold_said})`}
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
}

function CountTable({ rows }: { rows: readonly (readonly [string, number, number])[] }) {
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
        {rows.map(([label, live, change]) => (
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
