/** A row of the text: what it was taken for, and everything that she may say of it, by mouse and by keys. */
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { KeyboardEvent, Ref } from "react";
import { menuItem, menuSheet } from "../ui/overlays";
import type { BoardLine } from "./ask";
import type { Taken } from "./said";
import { CHOICES, choiceOf } from "./taken";

export type RowAct =
  | { do: "take"; taken: Taken | null }
  | { do: "join" | "unjoin" | "part" | "whole" | "explain" };

const EDGES = { fault: "border-l-madder", warning: "border-l-weld", hint: "border-l-woad" };
const KEYS: Record<string, RowAct["do"]> = { j: "join", "/": "part", e: "explain" };

/** What a key says of a row, null for one that says nothing. */
export function actOf(key: string): RowAct | null {
  const choice = CHOICES.find((c) => c.key === key);
  if (choice) return { do: "take", taken: choice.taken };
  if (key === "Backspace" || key === "Delete") return { do: "take", taken: null };
  const other = KEYS[key];
  return other && other !== "take" ? { do: other } : null;
}

export function Row({
  line,
  current,
  marker,
  onCurrent,
  onAct,
  onWalk,
}: {
  line: BoardLine;
  current: boolean;
  /** The row's button, which holds the focus. */
  marker: Ref<HTMLButtonElement>;
  onCurrent: () => void;
  onAct: (act: RowAct) => void;
  onWalk: (key: string) => boolean;
}) {
  const choice = choiceOf(line.taken);
  const press = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const act = actOf(e.key);
    if (act) onAct(act);
    else if (!onWalk(e.key)) return;
    e.preventDefault();
  };
  const edge = line.severity ? EDGES[line.severity] : "border-l-transparent";
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the row's button takes the keys
    <li
      className={`grid cursor-default grid-cols-[2.5rem_minmax(0,1fr)_auto] gap-x-2 border-l-4 border-b border-b-line px-1 py-1 ${edge} ${current ? "bg-sunk" : ""}`}
      onClick={onCurrent}
    >
      <span className="text-right text-sm text-soft tabular-nums">{line.column ? "" : line.line}</span>
      <div className="min-w-0">
        <p
          className={`whitespace-pre-wrap break-words ${line.taken === "nothing" ? "text-soft line-through" : ""}`}
        >
          {line.text}
        </p>
        {line.understood && line.severity !== "fault" && line.understood !== line.text && (
          <p className="text-sm text-soft">
            <span aria-hidden="true">→ </span>
            <span className="sr-only">read as </span>
            {line.understood}
          </p>
        )}
        {line.message && <p className="text-sm">{line.message}</p>}
      </div>
      <DropdownMenu.Root onOpenChange={(open) => open && onCurrent()}>
        <DropdownMenu.Trigger asChild>
          <button
            ref={marker}
            type="button"
            tabIndex={current ? 0 : -1}
            onFocus={onCurrent}
            onKeyDown={press}
            aria-label={`Line ${line.line}, ${choice.name}: ${line.text.slice(0, 80)}`}
            className={`inline-flex h-fit items-center gap-1 rounded border px-1.5 text-sm ${choice.ground} ${line.corrected ? "border-woad font-semibold" : "border-line"}`}
          >
            {choice.name}
            {line.corrected && <span className="sr-only">, as you said</span>}
            <ChevronDown size={14} aria-hidden="true" />
          </button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" sideOffset={2} className={menuSheet}>
            <Choices line={line} onAct={onAct} />
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  );
}

function Item({ name, keys, onSelect }: { name: string; keys: string; onSelect: () => void }) {
  return (
    <DropdownMenu.Item className={`${menuItem} flex justify-between gap-4`} onSelect={onSelect}>
      <span>{name}</span>
      <kbd className="text-sm text-soft">{keys}</kbd>
    </DropdownMenu.Item>
  );
}

function Choices({ line, onAct }: { line: BoardLine; onAct: (act: RowAct) => void }) {
  return (
    <>
      <DropdownMenu.Label className="px-2 py-1 text-sm text-soft">This line is</DropdownMenu.Label>
      {CHOICES.map((c) => (
        <Item
          key={c.taken}
          name={c.name}
          keys={c.key}
          onSelect={() => onAct({ do: "take", taken: c.taken })}
        />
      ))}
      <DropdownMenu.Separator className="my-1 border-t border-line" />
      {line.last_line === line.line && (
        <Item name="Part it in two …" keys="/" onSelect={() => onAct({ do: "part" })} />
      )}
      <Item name="Join it with the next line" keys="j" onSelect={() => onAct({ do: "join" })} />
      {line.joined && (
        <Item name="Take the lines apart again" keys="" onSelect={() => onAct({ do: "unjoin" })} />
      )}
      {line.column > 0 && (
        <Item name="Put it back to the line before" keys="" onSelect={() => onAct({ do: "whole" })} />
      )}
      <Item name="Explain a word …" keys="e" onSelect={() => onAct({ do: "explain" })} />
      {line.corrected && (
        <Item name="As it is read" keys="⌫" onSelect={() => onAct({ do: "take", taken: null })} />
      )}
    </>
  );
}
