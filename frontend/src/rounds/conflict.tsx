/** Two windows wrote the same part: both texts side by side, and a choice. */
import { Button } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import type { Conflict } from "./text-saver";

/** Lines of `text` that `other` does not have, to be marked. */
function Lines({ text, other }: { text: string; other: string }) {
  const there = new Set(other.split("\n"));
  return (
    <pre className="max-h-80 overflow-auto rounded border border-line bg-ground p-2 font-sans whitespace-pre-wrap">
      {text.split("\n").map((line, i) => (
        <span
          key={i}
          className={`block min-h-6 ${there.has(line) ? "" : "border-l-4 border-weld bg-weld-ground pl-1"}`}
        >
          {line}
        </span>
      ))}
    </pre>
  );
}

export function ConflictDialog({
  conflict,
  name,
  settle,
}: {
  conflict: Conflict | null;
  name: string;
  settle: (keep: "mine" | "theirs") => void;
}) {
  return (
    <Dialog
      open={conflict !== null}
      onOpen={() => undefined}
      wide
      beside
      title={`${name} was changed in another window`}
      about="Nothing is lost: choose which text goes on (Tab leads here; what you type meanwhile goes on in your text). The other stays in what was done, or in the other window."
    >
      {conflict && (
        <div className="grid gap-4 md:grid-cols-2">
          <section aria-label="Typed here">
            <h3 className="mb-1 text-lg">Typed here</h3>
            <Lines text={conflict.mine} other={conflict.theirs} />
            <Button weight="main" className="mt-2" onClick={() => settle("mine")}>
              Keep this text
            </Button>
          </section>
          <section aria-label="Saved by the other window">
            <h3 className="mb-1 text-lg">Saved by the other window</h3>
            <Lines text={conflict.theirs} other={conflict.mine} />
            <Button className="mt-2" onClick={() => settle("theirs")}>
              Keep that text
            </Button>
          </section>
        </div>
      )}
    </Dialog>
  );
}
