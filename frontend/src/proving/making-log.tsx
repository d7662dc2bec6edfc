/** The making log: what was done on the hook, a line each. */
import { X } from "lucide-react";
import { Button, boxClass, IconButton, inputClass, Panel } from "../ui/controls";
import type { Change, Entry } from "./use-rows";

function today(): string {
  return new Date().toISOString().slice(0, 10);
}

function Line({
  entry,
  number,
  onChange,
}: {
  entry: Entry;
  number: number;
  onChange: (value: Omit<Entry, "id"> | null) => void;
}) {
  const { date, text } = entry;
  return (
    <li className="flex gap-1.5">
      <input
        type="date"
        aria-label={`Day of note ${number}`}
        className={`${boxClass} w-40 shrink-0`}
        value={date}
        onChange={(e) => e.target.value && onChange({ date: e.target.value, text })}
      />
      <input
        aria-label={`Note ${number}`}
        className={inputClass}
        maxLength={500}
        value={text}
        onChange={(e) => onChange({ date, text: e.target.value })}
      />
      <IconButton label={`Remove note ${number}`} onClick={() => onChange(null)}>
        <X size={16} />
      </IconButton>
    </li>
  );
}

export function MakingLog({ log, onChange }: { log: Entry[]; onChange: (change: Change) => void }) {
  return (
    <Panel
      title="Making log"
      aside={
        <Button
          onClick={() =>
            onChange({ row: "log", id: crypto.randomUUID(), value: { date: today(), text: "" } })
          }
        >
          Note something
        </Button>
      }
    >
      {!log.length && (
        <p className="text-soft">
          What you did and changed on the hook, note it then: a figure whose notes are missing can never be
          published.
        </p>
      )}
      <ul className="flex flex-col gap-1.5">
        {log.map((entry, i) => (
          <Line
            key={entry.id}
            entry={entry}
            number={i + 1}
            onChange={(value) => onChange({ row: "log", id: entry.id, value })}
          />
        ))}
      </ul>
    </Panel>
  );
}
