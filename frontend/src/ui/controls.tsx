/** Buttons and fields: plain elements in the house's manner. */
import { ChevronRight } from "lucide-react";
import { Slot } from "radix-ui";
import {
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  useEffect,
  useId,
  useState,
} from "react";

type Weight = "main" | "plain" | "quiet" | "danger";
const WEIGHTS: Record<Weight, string> = {
  main: "bg-woad-ground border-woad hover:brightness-95 font-semibold",
  plain: "bg-panel border-strong hover:bg-sunk",
  quiet: "border-transparent hover:bg-sunk",
  danger: "bg-madder-ground border-madder hover:brightness-95",
};

export function Button({
  weight = "plain",
  asChild = false,
  className = "",
  ref,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  weight?: Weight;
  asChild?: boolean;
  ref?: Ref<HTMLButtonElement>;
}) {
  const Tag = asChild ? Slot.Root : "button";
  return (
    <Tag
      ref={ref}
      type={asChild ? undefined : "button"}
      className={`inline-flex items-center justify-center gap-1.5 rounded-md border px-3 py-1.5 text-ink disabled:opacity-55 aria-pressed:border-woad aria-pressed:bg-woad-ground ${WEIGHTS[weight]} ${className}`}
      {...rest}
    />
  );
}

export function IconButton({
  label,
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { label: string; ref?: Ref<HTMLButtonElement> }) {
  return (
    <Button
      weight="quiet"
      aria-label={label}
      title={label}
      {...rest}
      className={`px-1.5 ${rest.className ?? ""}`}
    >
      {children}
    </Button>
  );
}

/** The look of whatever is typed into or chosen from; its width is the caller's. */
export const boxClass =
  "rounded-md border border-strong bg-panel px-2 py-1.5 text-ink placeholder:text-soft aria-invalid:border-madder aria-invalid:border-2";
export const inputClass = `w-full ${boxClass}`;

/** A label with what it labels, a hint, and the place for its error. */
export function Field({
  label,
  hint,
  error,
  children,
  className = "",
}: {
  label: string;
  hint?: ReactNode;
  error?: string | null;
  className?: string;
  children: (ids: { id: string; "aria-describedby"?: string; "aria-invalid"?: boolean }) => ReactNode;
}) {
  const id = useId();
  const about = error ? `${id}-error` : hint ? `${id}-hint` : undefined;
  return (
    <div className={`flex flex-col gap-1 ${className}`}>
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      {children({ id, "aria-describedby": about, "aria-invalid": error ? true : undefined })}
      {error ? (
        <p
          id={`${id}-error`}
          role="alert"
          className="border-l-4 border-madder bg-madder-ground px-2 py-0.5 text-sm"
        >
          {error}
        </p>
      ) : (
        hint && (
          <p id={`${id}-hint`} className="text-sm text-soft">
            {hint}
          </p>
        )
      )}
    </div>
  );
}

export function TextField({
  label,
  hint,
  error,
  className,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & {
  label: string;
  hint?: ReactNode;
  error?: string | null;
  ref?: Ref<HTMLInputElement>;
}) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => <input className={inputClass} {...ids} {...rest} />}
    </Field>
  );
}

/** What a typed number means: its value, null when empty, or the sentence that says what would be right. */
export function readNumber(
  text: string,
  least: number,
  most: number,
  optional: boolean,
): number | null | string {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return optional ? null : `Type a number from ${least} to ${most}.`;
  const value = Number(plain);
  if (!Number.isFinite(value)) return `“${text.trim()}” is no number.`;
  if (value < least || value > most) return `It must be from ${least} to ${most}.`;
  return value;
}

/** A number that may be typed freely; `onValue` hears of it only when it makes sense. Escape lets a refused one go. */
export function NumberField({
  label,
  value,
  onValue,
  least,
  most,
  unit,
  optional = false,
  hint,
  step = 1,
  className,
  disabled,
  heard = "typing",
  said = null,
}: {
  label: string;
  value: number | null;
  onValue: (value: number | null) => void;
  least: number;
  most: number;
  unit?: string;
  optional?: boolean;
  hint?: ReactNode;
  step?: number;
  className?: string;
  disabled?: boolean;
  /** When a number counts: with every key, or once she leaves the field or presses Enter. */
  heard?: "typing" | "leaving";
  /** What is wrong with it beside what the field itself sees. */
  said?: string | null;
}) {
  const shown = value === null ? "" : String(Math.round(value * 1000) / 1000);
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  const [typing, setTyping] = useState(false);
  useEffect(() => {
    if (!typing) {
      setText(shown);
      setError(null);
    }
  }, [shown, typing]);
  const hear = (typed: string) => {
    setText(typed);
    const read = readNumber(typed, least, most, optional);
    setError(typeof read === "string" ? read : null);
    if (typeof read !== "string" && heard === "typing") onValue(read);
  };
  const leave = () => {
    const read = readNumber(text, least, most, optional);
    if (typeof read !== "string" && heard === "leaving" && text !== shown) onValue(read);
    // What is refused stays as it was typed, with the reason: nothing snaps back unseen.
    setTyping(error !== null);
  };
  return (
    <Field
      label={unit ? `${label} (${unit})` : label}
      hint={hint}
      error={error ?? said}
      className={className}
    >
      {(ids) => (
        <input
          {...ids}
          className={inputClass}
          inputMode="decimal"
          disabled={disabled}
          value={text}
          onFocus={() => setTyping(true)}
          onBlur={leave}
          onChange={(e) => hear(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Escape" && error !== null) {
              e.stopPropagation();
              setText(shown);
              setError(null);
              return;
            }
            if (e.key === "Enter" && heard === "leaving") leave();
            const by = e.key === "ArrowUp" ? step : e.key === "ArrowDown" ? -step : 0;
            if (!by) return;
            e.preventDefault();
            const now = value ?? least;
            hear(String(Math.round(Math.min(most, Math.max(least, now + by)) * 1000) / 1000));
          }}
        />
      )}
    </Field>
  );
}

export function SelectField<T extends string>({
  label,
  value,
  onValue,
  options,
  hint,
  error,
  className,
}: {
  label: string;
  value: T;
  onValue: (value: T) => void;
  options: readonly (readonly [T, string])[];
  hint?: ReactNode;
  error?: string | null;
  className?: string;
}) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => (
        <select className={inputClass} {...ids} value={value} onChange={(e) => onValue(e.target.value as T)}>
          {options.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

export function Check({
  label,
  checked,
  onChecked,
}: {
  label: ReactNode;
  checked: boolean;
  onChecked: (on: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-woad"
        checked={checked}
        onChange={(e) => onChecked(e.target.checked)}
      />
      <span>{label}</span>
    </label>
  );
}

export function Panel({
  title,
  children,
  className = "",
  aside,
}: {
  title?: string;
  aside?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section className={`rounded-lg border border-line bg-panel p-4 ${className}`}>
      {(title || aside) && (
        <div className="mb-3 flex items-center justify-between gap-2">
          {title && <h2 className="text-lg">{title}</h2>}
          {aside}
        </div>
      )}
      {children}
    </section>
  );
}

/** A panel that is a line while it is folded. said: what it holds, in that line. folded: whether it is so at first. */
export function FoldedPanel({
  title,
  said,
  folded,
  children,
  className = "",
}: {
  title: string;
  said: string;
  folded: boolean;
  children: ReactNode;
  className?: string;
}) {
  const [open, setOpen] = useState(!folded);
  const id = useId();
  return (
    <section aria-label={title} className={`rounded-lg border border-line bg-panel px-4 py-2 ${className}`}>
      <h2 className="text-lg">
        <button
          type="button"
          aria-expanded={open}
          aria-controls={id}
          onClick={() => setOpen(!open)}
          className="flex w-full items-start gap-2 rounded-md py-1 text-left hover:bg-sunk"
        >
          <ChevronRight size={18} aria-hidden className={`mt-1 shrink-0 ${open ? "rotate-90" : ""}`} />
          <span>{title}</span>
          {!open && <span className="mt-0.5 font-sans text-base font-normal text-soft">{said}</span>}
        </button>
      </h2>
      <div id={id} hidden={!open} className="pt-1 pb-2">
        {children}
      </div>
    </section>
  );
}

/** An empty place that offers the next step. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-md flex-col items-center gap-3 rounded-lg border border-dashed border-strong p-8 text-center">
      <h2 className="text-xl">{title}</h2>
      {children}
    </div>
  );
}
