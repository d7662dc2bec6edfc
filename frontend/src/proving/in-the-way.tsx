/** What stands in the way of a release, worked out: counts, measures, remarks, sizes, pictures, terms. */
import { Link } from "react-router";
import type { Design } from "../design/design";
import { Refused } from "../ui/refused";
import { type Tests, useTests } from "./use-proving";

type Open = Tests["open"][number];

function wayTo(design: Design, one: Open): string | null {
  if (one.stop === "proving") return null;
  const at = one.stop === "rounds" && one.part ? `?part=${one.part}` : "";
  return `/designs/${design.id}/${one.stop}${at}`;
}

function List({ design, title, found, bad }: { design: Design; title: string; found: Open[]; bad: boolean }) {
  if (found.length === 0) return null;
  return (
    <section aria-label={title} className="mb-3">
      <h3 className="mb-1 font-sans text-sm font-semibold">
        {title} ({found.length})
      </h3>
      <ul className="flex flex-col gap-1">
        {found.map((one) => {
          const to = wayTo(design, one);
          return (
            <li
              key={`${one.code} ${one.text}`}
              className={`border-l-4 px-2 py-0.5 ${bad ? "border-madder bg-madder-ground" : "border-weld bg-weld-ground"}`}
            >
              {one.text}{" "}
              {to && (
                <Link to={to} className="whitespace-nowrap underline">
                  {one.stop[0]?.toUpperCase()}
                  {one.stop.slice(1)}
                </Link>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

export function InTheWay({ design }: { design: Design }) {
  const tests = useTests(design.id);
  const open = tests.data?.open ?? [];
  return (
    <>
      <Refused error={tests.error} />
      {tests.isPending && (
        <p role="status" className="text-soft">
          Reading the pattern …
        </p>
      )}
      {tests.data && open.every((o) => !o.blocks) && (
        <p className="mb-3 border-l-4 border-moss bg-moss-ground px-2 py-1">Nothing blocks a release.</p>
      )}
      <List design={design} title="Blocks the release" found={open.filter((o) => o.blocks)} bad />
      <List design={design} title="To look at" found={open.filter((o) => !o.blocks)} bad={false} />
    </>
  );
}
