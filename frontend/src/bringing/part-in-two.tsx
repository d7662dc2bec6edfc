/** A line parted in two: the place is walked along its words, or clicked. */
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { Button } from "../ui/controls";
import { gaps } from "./said";

export function PartInTwo({
  raw,
  column,
  onPart,
  onCancel,
}: {
  raw: string;
  column: number;
  onPart: (column: number) => void;
  onCancel: () => void;
}) {
  const places = gaps(raw, column);
  const [at, setAt] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => box.current?.focus(), []);
  const place = places[at];
  if (!place)
    return (
      <p className="border-l-4 border-woad bg-woad-ground px-2 py-1 text-sm">
        This line is one word: it cannot be parted. <Button onClick={onCancel}>Very well</Button>
      </p>
    );
  const press = (e: KeyboardEvent) => {
    if (e.target !== e.currentTarget) return;
    const next = { ArrowLeft: at - 1, ArrowRight: at + 1, Home: 0, End: places.length - 1 }[e.key];
    if (next !== undefined) setAt(Math.max(0, Math.min(places.length - 1, next)));
    else if (e.key === "Enter") onPart(place.at);
    else if (e.key === "Escape") onCancel();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div className="my-1 rounded border border-woad bg-panel p-2">
      <div
        ref={box}
        tabIndex={0}
        role="slider"
        aria-label="Where the second line begins"
        aria-valuemin={1}
        aria-valuemax={places.length}
        aria-valuenow={at + 1}
        aria-valuetext={`before ${place.after.slice(0, 40)}`}
        onKeyDown={press}
        className="rounded px-1"
      >
        <span>{place.before}</span>
        <span aria-hidden="true" className="mx-0.5 border-l-2 border-madder" />
        <span className="rounded bg-woad-ground">{place.after}</span>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <Button onClick={() => setAt(Math.max(0, at - 1))} disabled={at === 0} aria-label="A word earlier">
          ←
        </Button>
        <Button
          onClick={() => setAt(Math.min(places.length - 1, at + 1))}
          disabled={at === places.length - 1}
          aria-label="A word later"
        >
          →
        </Button>
        <Button weight="main" onClick={() => onPart(place.at)}>
          Part it here
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </div>
  );
}
