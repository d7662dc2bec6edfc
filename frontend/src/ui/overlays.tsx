/** Overlays, all on Radix primitives: dialog, confirmation, tooltip, toast. */
import { X } from "lucide-react";
import { AlertDialog, Dialog as Radix, Toast, Tooltip } from "radix-ui";
import {
  createContext,
  type ReactNode,
  type RefObject,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { Button, IconButton } from "./controls";
import type { Estimate } from "./units";
import { spread } from "./units";

/** The look of a menu and of what stands in it. */
export const menuSheet =
  "z-50 max-h-[80dvh] min-w-56 overflow-auto rounded-md border border-strong bg-panel p-1 text-ink shadow-xl";
export const menuItem =
  "cursor-default rounded px-2 py-1.5 outline-none data-[highlighted]:bg-woad-ground data-[disabled]:opacity-55";

const veil = "fixed inset-0 z-40 bg-black/45";
const sheet =
  "fixed left-1/2 top-1/2 z-50 max-h-[88dvh] w-[min(92vw,34rem)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-lg border border-strong bg-panel p-5 text-ink shadow-xl";

const WHOLE = "flex h-[96dvh] max-h-[96dvh] w-[min(98vw,90rem)] flex-col md:overflow-hidden";

/** Tab from anywhere else goes to the first control of what is shown. */
function useTabLeadsTo(shown: RefObject<HTMLElement | null>, on: boolean) {
  useEffect(() => {
    if (!on) return;
    const lead = (e: KeyboardEvent) => {
      if (e.key !== "Tab" || shown.current?.contains(document.activeElement)) return;
      e.preventDefault();
      shown.current?.querySelector<HTMLElement>("button, a[href], input, textarea")?.focus();
    };
    document.addEventListener("keydown", lead, true);
    return () => document.removeEventListener("keydown", lead, true);
  }, [shown, on]);
}

export function Dialog({
  open,
  onOpen,
  title,
  about,
  children,
  wide = false,
  whole = false,
  beside = false,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  title: string;
  about?: string;
  children: ReactNode;
  wide?: boolean;
  /** As large as the window, its own columns scrolling. */
  whole?: boolean;
  /** Opens while she types: takes neither the focus nor a key from there, is told aloud, and Tab leads to it. */
  beside?: boolean;
}) {
  const sheetShown = useRef<HTMLDivElement>(null);
  useTabLeadsTo(sheetShown, open && beside);
  // Most dialogs have no trigger of their own that could be given the focus again: what had it before gets it.
  const before = useRef<Element | null>(null);
  return (
    <Radix.Root open={open} onOpenChange={onOpen} modal={!beside}>
      <Radix.Portal>
        <Radix.Overlay className={veil} />
        <Radix.Content
          ref={sheetShown}
          className={`${sheet} ${wide ? "w-[min(94vw,62rem)]" : ""} ${whole ? WHOLE : ""}`}
          {...(about ? {} : { "aria-describedby": undefined })}
          onOpenAutoFocus={(e) => {
            before.current = document.activeElement;
            if (beside) e.preventDefault();
          }}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            if (before.current instanceof HTMLElement && before.current.isConnected) before.current.focus();
          }}
        >
          <Radix.Title className="mb-1 pr-10 text-xl">{title}</Radix.Title>
          {about && (
            <Radix.Description className="mb-3 text-soft" role={beside ? "alert" : undefined}>
              {about}
            </Radix.Description>
          )}
          {children}
          {/* Last, so that the focus begins in what the dialog is for. */}
          <Radix.Close asChild>
            <IconButton label="Close" className="absolute top-3 right-3">
              <X size={18} />
            </IconButton>
          </Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** A question before something that cannot be undone. */
export function Confirm({
  trigger,
  title,
  about,
  yes,
  onYes,
}: {
  trigger: ReactNode;
  title: string;
  about: string;
  yes: string;
  onYes: () => void;
}) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>{trigger}</AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={veil} />
        <AlertDialog.Content className={sheet}>
          <AlertDialog.Title className="mb-1 text-xl">{title}</AlertDialog.Title>
          <AlertDialog.Description className="mb-4 text-soft">{about}</AlertDialog.Description>
          <div className="flex justify-end gap-2">
            <AlertDialog.Cancel asChild>
              <Button>Keep it</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button weight="danger" onClick={onYes}>
                {yes}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** A number that explains itself on hover and focus. */
export function Explained({ children, why }: { children: ReactNode; why: string }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>
        <button
          type="button"
          className="cursor-help underline decoration-dotted decoration-strong underline-offset-4"
        >
          {children}
        </button>
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-w-72 rounded-md border border-strong bg-panel px-3 py-2 text-sm text-ink shadow-lg"
        >
          {why}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** An estimate: marked as one, with its range and where it comes from. */
export function Guess({ of, format }: { of: Estimate; format: (value: number) => string }) {
  const share = spread(of);
  const why = `${format(of.low)} to ${format(of.high)}: ${of.how}`;
  return (
    <Explained why={why}>
      {share > 6 && <span aria-hidden="true">≈ </span>}
      {share > 6 && <span className="sr-only">about </span>}
      {format(of.value)}
      {share > 6 && <span className="ml-1 rounded bg-weld-ground px-1 text-sm">± {share} %</span>}
    </Explained>
  );
}

type Said = { id: number; text: string; bad: boolean };
const Say = createContext<(text: string, bad?: boolean) => void>(() => {});

export function useSay() {
  return useContext(Say);
}

let next = 1;

export function Overlays({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<Said[]>([]);
  const say = useCallback((text: string, bad = false) => {
    setSaid((now) => [...now.filter((s) => s.text !== text).slice(-2), { id: next++, text, bad }]);
  }, []);
  const shown = useMemo(
    () =>
      said.map((s) => (
        <Toast.Root
          key={s.id}
          duration={s.bad ? 9000 : 3500}
          onOpenChange={(open) => !open && setSaid((now) => now.filter((other) => other.id !== s.id))}
          className={`flex items-start justify-between gap-3 rounded-md border-l-4 bg-panel px-3 py-2 text-ink shadow-lg ${s.bad ? "border-madder" : "border-moss"}`}
        >
          <Toast.Description>{s.text}</Toast.Description>
          <Toast.Close aria-label="Close" className="px-1">
            ×
          </Toast.Close>
        </Toast.Root>
      )),
    [said],
  );
  return (
    <Tooltip.Provider delayDuration={250}>
      <Toast.Provider label="Message">
        <Say.Provider value={say}>{children}</Say.Provider>
        {shown}
        <Toast.Viewport className="fixed bottom-4 right-4 z-50 flex w-[min(92vw,26rem)] flex-col gap-2" />
      </Toast.Provider>
    </Tooltip.Provider>
  );
}
