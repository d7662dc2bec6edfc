/** All commands in one palette (Ctrl+K) and all shortcuts in one list (?). */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from "react";
import { inputClass } from "./controls";
import { Dialog } from "./overlays";

export type Command = { name: string; keys?: string; run: () => void; where?: string };

const Register = createContext<(id: symbol, commands: Command[] | null) => void>(() => {});

/** Offer commands while a screen is shown. */
export function useCommands(commands: Command[]): void {
  const register = useContext(Register);
  const id = useRef(Symbol("commands"));
  useEffect(() => {
    const mine = id.current;
    register(mine, commands);
    return () => register(mine, null);
  }, [register, commands]);
}

const WRITING: readonly (readonly [string, string])[] = [
  ["Alt + ↑ / ↓", "Move the round up or down"],
  ["Alt + = / −", "One repeat more or less"],
  ["Shift + Alt + ↓", "Copy the round"],
  ["Ctrl + Shift + K", "Delete the round"],
  ["Alt + F", "Fold or unfold equal rounds"],
  ["Ctrl + Space", "Complete a word"],
  ["Ctrl + Z / Shift + Z", "Undo or redo typing"],
  ["↑ / ↓ on the ladder", "Walk from round to round; with Shift choose all between"],
  ["← / → on the ladder", "One stitch fewer or more in the round"],
  ["Alt + ← / → on the ladder", "Move the shaping of the chosen rounds along"],
  ["← / → in the dry run", "Stitch by stitch; Page ↑ / ↓ by rounds"],
];

/** Whether a key press belongs to a place where text is typed. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

export function Keys({ children }: { children: ReactNode }) {
  const [sets, setSets] = useState<Map<symbol, Command[]>>(new Map());
  const [open, setOpen] = useState<"palette" | "list" | null>(null);
  const [search, setSearch] = useState("");
  const [at, setAt] = useState(0);
  const register = useMemo(
    () => (id: symbol, commands: Command[] | null) =>
      setSets((now) => {
        const fresh = new Map(now);
        if (commands) fresh.set(id, commands);
        else fresh.delete(id);
        return fresh;
      }),
    [],
  );
  const all = useMemo(() => [...sets.values()].flat(), [sets]);
  const found = all.filter((c) => c.name.toLowerCase().includes(search.trim().toLowerCase()));
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setSearch("");
        setAt(0);
        setOpen("palette");
      } else if (e.key === "?" && !isTyping(e.target)) {
        e.preventDefault();
        setOpen("list");
      }
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  const run = (command: Command | undefined) => {
    setOpen(null);
    command?.run();
  };
  return (
    <Register.Provider value={register}>
      {children}
      <Dialog
        open={open === "palette"}
        onOpen={(o) => setOpen(o ? "palette" : null)}
        title="Commands"
        about="Type part of a command, then Enter."
      >
        <input
          className={inputClass}
          aria-label="Search commands"
          role="combobox"
          aria-expanded="true"
          aria-controls="command-list"
          aria-activedescendant={found[at] ? `command-${at}` : undefined}
          value={search}
          onChange={(e) => {
            setSearch(e.target.value);
            setAt(0);
          }}
          onKeyDown={(e) => {
            if (e.key === "ArrowDown") setAt(Math.min(at + 1, found.length - 1));
            else if (e.key === "ArrowUp") setAt(Math.max(at - 1, 0));
            else if (e.key === "Enter") run(found[at]);
            else return;
            e.preventDefault();
          }}
        />
        <div id="command-list" role="listbox" aria-label="Commands" className="mt-3 max-h-80 overflow-auto">
          {found.map((c, i) => (
            // biome-ignore lint/a11y/useFocusableInteractive: the box above holds the focus
            // biome-ignore lint/a11y/useKeyWithClickEvents: keys are handled in the box above
            <div
              key={`${c.name}-${i}`}
              id={`command-${i}`}
              role="option"
              aria-selected={i === at}
              className={`flex cursor-pointer justify-between rounded px-2 py-1.5 ${i === at ? "bg-woad-ground" : ""}`}
              onClick={() => run(c)}
              onMouseEnter={() => setAt(i)}
            >
              <span>{c.name}</span>
              {c.keys && <kbd className="text-sm text-soft">{c.keys}</kbd>}
            </div>
          ))}
          {!found.length && <p className="p-2 text-soft">No command of that name here.</p>}
        </div>
      </Dialog>
      <Dialog open={open === "list"} onOpen={(o) => setOpen(o ? "list" : null)} title="Shortcuts">
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
          {[
            ["Ctrl + K", "All commands"],
            ["?", "This list"],
            ...all.filter((c) => c.keys).map((c) => [c.keys, c.name]),
            ...WRITING,
          ].map(([keys, name]) => (
            <div key={`${keys}-${name}`} className="contents">
              <dt>
                <kbd className="rounded border border-line bg-sunk px-1.5 py-0.5 text-sm">{keys}</kbd>
              </dt>
              <dd>{name}</dd>
            </div>
          ))}
        </dl>
      </Dialog>
    </Register.Provider>
  );
}
