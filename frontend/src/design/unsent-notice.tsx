/** What of this design has not reached the studio yet, said on every stop. */
import { Link } from "react-router";
import type { Design } from "./design";
import { storeIsFull, type Unsent } from "./unsent";
import { useUnsent } from "./use-unsent";

function nameOf(design: Design, item: Unsent): string {
  if (item.kind === "page") return `the ${item.page} page`;
  return design.parts.find((p) => p.key === item.part)?.name ?? "a part that is gone";
}

function placeOf(design: Design, item: Unsent): string {
  return item.kind === "page"
    ? `/designs/${design.id}/${item.page}`
    : `/designs/${design.id}/rounds?part=${item.part}`;
}

export function UnsentNotice({ design }: { design: Design }) {
  const { waiting, refused } = useUnsent(design.id);
  if (!waiting && !storeIsFull()) return null;
  return (
    <p role="status" className="border-b border-line bg-weld-ground px-4 py-1 text-sm no-print">
      {refused.length > 0 ? (
        <>
          Changed in another window meanwhile:{" "}
          {refused.map((item, i) => (
            <span key={placeOf(design, item)}>
              {i > 0 && ", "}
              <Link className="underline" to={placeOf(design, item)}>
                {nameOf(design, item)}
              </Link>
            </span>
          ))}
          . Open it to choose which to keep; what you typed is still here.
        </>
      ) : storeIsFull() ? (
        "This browser's store is full: what you type now is kept only while this page is open."
      ) : (
        `The studio does not answer. What you typed in ${waiting} place${waiting === 1 ? "" : "s"} is kept here and sent once it is back.`
      )}
    </p>
  );
}
