/** Small things that the making page is built of: large enough for a thumb. */
import { type ReactNode, useEffect, useId, useRef } from "react";

export const buttonClass =
  "inline-flex min-h-11 items-center justify-center gap-1.5 rounded-md border border-strong bg-panel px-3 py-2 text-ink disabled:opacity-55 aria-pressed:border-woad aria-pressed:bg-woad-ground";
export const mainClass =
  "inline-flex min-h-11 items-center justify-center rounded-md border border-woad bg-woad-ground px-3 py-2 font-semibold text-ink disabled:opacity-55";
export const boxClass = "min-h-11 w-full rounded-md border border-strong bg-panel px-2 py-1.5 text-ink";

/** A sheet over the page; the browser's own dialog, as nothing else fits into the weight of this page. */
export function Sheet({
  title,
  onClose,
  children,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => {
    const here = dialog.current;
    if (here && !here.open) here.showModal();
    return () => here?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby={id}
      className="m-auto mb-0 max-h-[92dvh] w-full max-w-xl overflow-y-auto rounded-t-xl border border-line bg-ground p-4 text-ink backdrop:bg-black/40 md:mb-auto md:rounded-xl"
      onCancel={(e) => {
        e.preventDefault();
        onClose();
      }}
    >
      <div className="mb-3 flex items-center justify-between gap-2">
        <h2 id={id} className="text-xl">
          {title}
        </h2>
        <button type="button" className={buttonClass} onClick={onClose}>
          Close
        </button>
      </div>
      {children}
    </dialog>
  );
}

export function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      {children(id)}
    </div>
  );
}

/** A typed number with a comma or a point; null where it is none, or lies beyond. */
export function numberIn(text: string, least: number, most: number): number | null {
  const plain = text.trim().replace(",", ".");
  const value = Number(plain);
  return plain !== "" && Number.isFinite(value) && value >= least && value <= most ? value : null;
}
