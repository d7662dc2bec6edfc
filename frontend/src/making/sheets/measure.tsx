/** Measures and weighings, the hook and the skein in use. */
import { useState } from "react";
import type { SheetProps } from "../menu";
import { boxClass, buttonClass, Labelled, mainClass, numberIn, Sheet } from "../parts";
import { useScale } from "../scale-line";
import type { What } from "../types";

/** A number with its unit, and what is said with it. */
function Entry({
  label,
  unit,
  least,
  most,
  onValue,
  weighed = false,
}: {
  label: string;
  unit: string;
  least: number;
  most: number;
  onValue: (value: number) => Promise<boolean>;
  /** What the scale shows goes into this field. */
  weighed?: boolean;
}) {
  const [typed, setTyped] = useState("");
  useScale(weighed ? (grams) => setTyped(String(grams)) : null);
  const [kept, setKept] = useState("");
  const value = numberIn(typed, least, most);
  const wrong = typed.trim() !== "" && value === null;
  const keep = async () => {
    if (value !== null && (await onValue(value))) {
      setKept(`${typed.trim()} ${unit} is kept.`);
      setTyped("");
    }
  };
  return (
    <div>
      <div className="flex items-end gap-2">
        <div className="flex-1">
          <Labelled label={`${label}, ${unit}`}>
            {(id) => (
              <input
                id={id}
                className={boxClass}
                inputMode="decimal"
                aria-invalid={wrong}
                value={typed}
                onChange={(e) => setTyped(e.target.value)}
                onKeyDown={(e) => e.key === "Enter" && void keep()}
              />
            )}
          </Labelled>
        </div>
        <button type="button" className={mainClass} disabled={value === null} onClick={() => void keep()}>
          Keep<span className="sr-only"> {label.toLowerCase()}</span>
        </button>
      </div>
      <p role="status" className="text-sm text-soft">
        {wrong ? `A number from ${least} to ${most}.` : kept}
      </p>
    </div>
  );
}

export function Measure({ state, piece, round, onClose }: SheetProps) {
  const { say, progress, row } = state;
  const { sheet } = row.making;
  const [yarn, setYarn] = useState(sheet.yarns[0]?.name ?? "Main");
  const rung = piece?.part.rungs[round];
  const length = (what: "height" | "width") => (cm: number) =>
    say({ kind: "measured", what, mm: cm * 10, part: "", round: 0 });
  const weigh = (after: boolean) => (grams: number) => say({ kind: "weighed", yarn, grams, after });
  return (
    <Sheet title="Measure" onClose={onClose}>
      <div className="flex flex-col gap-1">
        <Entry label="Height of the figure" unit="cm" least={0.1} most={500} onValue={length("height")} />
        <Entry label="Width of the figure" unit="cm" least={0.1} most={500} onValue={length("width")} />
        {piece && rung && (
          <Entry
            label={`Around ${piece.part.name} at ${rung.label}`}
            unit="cm"
            least={0.1}
            most={500}
            onValue={(cm) =>
              say({ kind: "measured", what: "girth", mm: cm * 10, part: piece.part.key, round: round + 1 })
            }
          />
        )}
        <YarnChoice value={yarn} onValue={setYarn} names={sheet.yarns.map((y) => y.name)} />
        <Entry
          label="Ball before working"
          unit="g"
          least={0}
          most={5000}
          onValue={weigh(false)}
          weighed={progress.at === null}
        />
        <Entry
          label="Ball after working"
          unit="g"
          least={0}
          most={5000}
          onValue={weigh(true)}
          weighed={progress.at !== null}
        />
        <Entry
          label={progress.hook ? `Hook (now ${progress.hook})` : "Hook"}
          unit="mm"
          least={0.4}
          most={40}
          onValue={(mm) => say({ kind: "hook", mm })}
        />
        <p className="mb-2 text-sm">
          A scale that types its reading works in the fields above; without one there is a{" "}
          <a className="underline" href="/make/scale" target="_blank" rel="noreferrer">
            scale to try with
          </a>
          .
        </p>
        <Skein yarn={yarn} now={progress.skeins[yarn] ?? ""} say={say} />
        <Entry
          label="Minutes that the log has too few (less than 0: too many)"
          unit="min"
          least={-6000}
          most={6000}
          onValue={(minutes) =>
            minutes === 0 ? Promise.resolve(false) : say({ kind: "time", minutes, text: "" })
          }
        />
      </div>
    </Sheet>
  );
}

function YarnChoice({
  value,
  onValue,
  names,
}: {
  value: string;
  onValue: (v: string) => void;
  names: string[];
}) {
  if (names.length < 2) return null;
  return (
    <Labelled label="Yarn">
      {(id) => (
        <select id={id} className={boxClass} value={value} onChange={(e) => onValue(e.target.value)}>
          {names.map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

function Skein({ yarn, now, say }: { yarn: string; now: string; say: (what: What) => Promise<boolean> }) {
  const [text, setText] = useState("");
  const keep = async () => {
    if (await say({ kind: "skein", yarn, text: text.trim() })) setText("");
  };
  return (
    <div className="mb-2 flex items-end gap-2">
      <div className="flex-1">
        <Labelled label={now ? `Skein in use (now ${now})` : "Skein in use, its lot or number"}>
          {(id) => (
            <input
              id={id}
              className={boxClass}
              maxLength={120}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          )}
        </Labelled>
      </div>
      <button type="button" className={buttonClass} disabled={!text.trim()} onClick={() => void keep()}>
        Keep<span className="sr-only"> the skein</span>
      </button>
    </div>
  );
}
