/** All commands in one palette (Ctrl+K) and all shortcuts in one list (?). */
import {
  createContext,
  type KeyboardEvent as ReactKeyboardEvent,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
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

/** Whether a key press belongs to a dialog: what lies under it is not meant. */
export function inDialog(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role="dialog"],[role="alertdialog"]') !== null;
}

const OpenPalette = createContext<() => void>(() => {});

/** Opens the palette, for those who do not know its keys. */
export function useOpenPalette(): () => void {
  return useContext(OpenPalette);
}

export function Keys({ children }: { children: ReactNode }) {
  const [sets, setSets] = useState<Map<symbol, Command[]>>(new Map());
  const [open, setOpen] = useState<"palette" | "list" | null>(null);
  const register = useCallback((id: symbol, commands: Command[] | null) => {
    setSets((now) => {
      const fresh = new Map(now);
      if (commands) fresh.set(id, commands);
      else fresh.delete(id);
      return fresh;
    });
  }, []);
  const show = useCallback(() => setOpen("palette"), []);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      // With Shift it is the editor's own: it deletes a line there.
      if ((e.ctrlKey || e.metaKey) && !e.shiftKey && !e.altKey && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setOpen("palette");
      } else if (e.key === "?" && !isTyping(e.target)) {
        e.preventDefault();
        setOpen("list");
      }
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  const all = useMemo(
    () => [...[...sets.values()].flat(), { name: "Shortcuts", keys: "?", run: () => setOpen("list") }],
    [sets],
  );
  return (
    <Register.Provider value={register}>
      <OpenPalette.Provider value={show}>{children}</OpenPalette.Provider>
      <Dialog
        open={open === "palette"}
        onOpen={(o) => setOpen(o ? "palette" : null)}
        title="Commands"
        about="Type part of a command, then Enter."
      >
        <Palette
          commands={all}
          onChosen={(command) => {
            setOpen(null);
            command.run();
          }}
        />
      </Dialog>
      <Dialog open={open === "list"} onOpen={(o) => setOpen(o ? "list" : null)} title="Shortcuts">
        <Shortcuts commands={all} />
      </Dialog>
    </Register.Provider>
  );
}

/** Commands in which every word of the search begins a word, in the order that they were offered. */
export function matching(commands: readonly Command[], search: string): Command[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return commands.filter((c) => {
    const name = ` ${c.name.toLowerCase()}`;
    return words.every((word) => name.includes(` ${word}`));
  });
}

/** A search box that keeps the focus; arrows, Page, Home and End walk through what was found. */
function Palette({
  commands,
  onChosen,
}: {
  commands: readonly Command[];
  onChosen: (command: Command) => void;
}) {
  const [search, setSearch] = useState("");
  const [at, setAt] = useState(0);
  const list = useRef<HTMLDivElement>(null);
  const found = matching(commands, search);
  useEffect(() => {
    list.current?.children[at]?.scrollIntoView?.({ block: "nearest" });
  }, [at]);
  const press = (e: ReactKeyboardEvent) => {
    const last = found.length - 1;
    const next = {
      ArrowDown: at === last ? 0 : at + 1,
      ArrowUp: at === 0 ? last : at - 1,
      PageDown: Math.min(at + 8, last),
      PageUp: Math.max(at - 8, 0),
      Home: search ? null : 0,
      End: search ? null : last,
    }[e.key];
    const chosen = found[at];
    if (typeof next === "number") setAt(Math.max(next, 0));
    else if (e.key === "Enter" && chosen) onChosen(chosen);
    else return;
    e.preventDefault();
  };
  return (
    <>
      <input
        className={inputClass}
        aria-label="Search commands"
        role="combobox"
        aria-expanded="true"
        aria-autocomplete="list"
        aria-controls="command-list"
        aria-activedescendant={found[at] ? `command-${at}` : undefined}
        value={search}
        onChange={(e) => {
          setSearch(e.target.value);
          setAt(0);
        }}
        onKeyDown={press}
      />
      <div
        ref={list}
        id="command-list"
        role="listbox"
        aria-label="Commands"
        className="mt-3 max-h-80 overflow-auto"
      >
        {found.map((c, i) => (
          // biome-ignore lint/a11y/useFocusableInteractive: the box above holds the focus
          // biome-ignore lint/a11y/useKeyWithClickEvents: keys are handled in the box above
          <div
            key={`${c.name}-${i}`}
            id={`command-${i}`}
            role="option"
            aria-selected={i === at}
            className={`flex cursor-pointer justify-between rounded px-2 py-1.5 ${i === at ? "bg-woad-ground" : ""}`}
            onClick={() => onChosen(c)}
            onMouseMove={() => setAt(i)}
          >
            <span>{c.name}</span>
            {c.keys && <kbd className="text-sm text-soft">{c.keys}</kbd>}
          </div>
        ))}
      </div>
      {!found.length && (
        <p role="status" className="p-2 text-soft">
          No command of that name here.
        </p>
      )}
    </>
  );
}

function Shortcuts({ commands }: { commands: readonly Command[] }) {
  const all = [
    ["Ctrl + K", "All commands"],
    ...commands.filter((c) => c.keys).map((c) => [c.keys, c.name]),
    ...WRITING,
  ];
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
      {all.map(([keys, name]) => (
        <div key={`${keys}-${name}`} className="contents">
          <dt>
            <kbd className="rounded border border-line bg-sunk px-1.5 py-0.5 text-sm">{keys}</kbd>
          </dt>
          <dd>{name}</dd>
        </div>
      ))}
    </dl>
  );
}
