/** Whether what is on the page is saved, in a word; and the choice when two windows disagree. */
import type { Problem } from "../api/client";
import { Button } from "../ui/controls";
import type { SaveState } from "./use-page";

const WORDS: Record<SaveState, string> = {
  saved: "Saved",
  saving: "Saving …",
  unsaved: "Not saved yet",
  offline: "No answer from the studio; trying again",
  stale: "Changed in another window",
};
const MARKS: Record<SaveState, string> = {
  saved: "bg-moss",
  saving: "bg-woad",
  unsaved: "bg-weld",
  offline: "bg-madder",
  stale: "bg-madder",
};

export function SaveMark({ state }: { state: SaveState }) {
  return (
    <span className="inline-flex items-center gap-1.5 text-sm text-soft" role="status" data-save={state}>
      <span className={`inline-block size-2 rounded-full ${MARKS[state]}`} aria-hidden="true" />
      {WORDS[state]}
    </span>
  );
}

export function PageRefusal({
  state,
  problem,
  settle,
}: {
  state: SaveState;
  problem: Problem | null;
  settle: (keep: "mine" | "theirs") => void;
}) {
  if (!problem || state === "offline") return null;
  return (
    <div
      role="alert"
      className="mb-4 flex flex-wrap items-center gap-3 rounded-md border-l-4 border-madder bg-madder-ground px-3 py-2"
    >
      <span className="flex-1">{problem.detail}</span>
      {state === "stale" && (
        <>
          <Button onClick={() => settle("theirs")}>Show what was written there</Button>
          <Button onClick={() => settle("mine")}>Keep what I typed here</Button>
        </>
      )}
    </div>
  );
}
