/** Every making that was opened on this device, to go on with or to take away. */
import { useEffect, useState } from "react";
import { buttonClass } from "./parts";
import { progressOf, stitchesOf } from "./progress";
import { allKept, drop, eventsOf, type Kept, unsent } from "./store";

type Row = { kept: Kept; share: number; waiting: number };

async function rows(): Promise<Row[]> {
  const all = (await allKept()).sort((a, b) => b.opened - a.opened);
  return Promise.all(
    all.map(async (kept) => {
      const [done, of] = stitchesOf(kept.making.sheet, progressOf(await eventsOf(kept.id)));
      return { kept, share: of ? done / of : 0, waiting: (await unsent(kept.id)).length };
    }),
  );
}

const pathOf = (kept: Kept) =>
  kept.token ? `/make/${encodeURIComponent(kept.token)}` : `/make/own/${kept.id}`;

export function OnThisDevice() {
  const [found, setFound] = useState<Row[] | null>(null);
  useEffect(() => {
    rows().then(setFound, () => setFound([]));
  }, []);
  const remove = async (row: Row) => {
    await drop(row.kept.id);
    setFound(await rows());
  };
  return (
    <main className="mx-auto w-full max-w-md p-4">
      <h1 className="mb-3 text-2xl">On this device</h1>
      {found?.length === 0 && (
        <p className="text-soft">
          Nothing yet. A making begins at Proving, or with the link that a designer sends you; once opened it
          is here, with or without a net.
        </p>
      )}
      <ul className="flex flex-col gap-3">
        {found?.map((row) => (
          <li key={row.kept.id} className="rounded-lg border border-line bg-panel p-3">
            <a className="block text-lg underline" href={pathOf(row.kept)}>
              {row.kept.making.sheet.title}, {row.kept.making.title}
            </a>
            <p className="text-sm text-soft">
              {Math.round(100 * row.share)} % of the stitches
              {row.waiting > 0 && `, ${row.waiting} notes wait for a net`}
            </p>
            <button
              type="button"
              className={buttonClass}
              disabled={row.waiting > 0}
              title={row.waiting > 0 ? "What waits for a net would be lost" : undefined}
              onClick={() => void remove(row)}
            >
              Take off this device
            </button>
          </li>
        ))}
      </ul>
    </main>
  );
}
