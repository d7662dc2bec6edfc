/** The pattern to read, how the page behaves, and what is done with the log. */
import { useEffect, useRef, useState } from "react";
import { setGround, useGround } from "../../ui/ground";
import type { SheetProps } from "../menu";
import { buttonClass, Sheet } from "../parts";
import { type Preferences, prefer, usePreferences } from "../preferences";
import { canSpeak, readAloud, said } from "../senses";
import { forget, Refused, type Way } from "../server";

const CHOICES: [keyof Preferences, string][] = [
  ["left", "Left thumb"],
  ["clicks", "Count stitch by stitch"],
  ["sound", "Sound"],
  ["vibrate", "Vibration"],
  ["awake", "Keep the screen on"],
  ["aloud", "Read each round aloud"],
];

/** The booklet that is worked from, kept apart from this page's own look. */
function Pattern({ page }: { page: string }) {
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const here = host.current;
    if (!here) return;
    const root = here.shadowRoot ?? here.attachShadow({ mode: "open" });
    const read = new DOMParser().parseFromString(page, "text/html");
    root.replaceChildren(
      ...[...read.querySelectorAll("style")].map((s) => s.cloneNode(true)),
      ...read.body.childNodes,
    );
  }, [page]);
  return <div ref={host} className="overflow-x-auto rounded-md bg-white p-2 text-black" />;
}

export function More({ state, piece, round, onClose, way }: SheetProps & { way: Way }) {
  const likes = usePreferences();
  const ground = useGround();
  const [reading, setReading] = useState(false);
  const [told, setTold] = useState("");
  const rung = piece?.part.rungs[round];
  const save = () => {
    const body = JSON.stringify(
      { format: 1, title: state.row.making.title, edition: state.row.making.edition, events: state.events },
      null,
      1,
    );
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([body], { type: "application/json" }));
    link.download = "making-log.json";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const remove = async () => {
    if (!window.confirm("Everything that you gave is deleted at the designer's, for good. Go on?")) return;
    try {
      await forget(way, state.row.id);
      setTold("It is deleted there. What is on this device goes with “Take off this device”.");
    } catch (error) {
      setTold(error instanceof Refused ? error.message : "There is no net: nothing was deleted.");
    }
  };
  if (reading && state.row.page)
    return (
      <Sheet title="The pattern" onClose={onClose}>
        <Pattern page={state.row.page} />
      </Sheet>
    );
  return (
    <Sheet title="More" onClose={onClose}>
      <div className="flex flex-col gap-3">
        <button
          type="button"
          className={buttonClass}
          disabled={!state.row.page}
          onClick={() => setReading(true)}
        >
          {state.row.page ? "Read the whole pattern" : "The pattern comes with the next net"}
        </button>
        {rung && canSpeak() && (
          <button type="button" className={buttonClass} onClick={() => readAloud(said(rung))}>
            Read this round aloud
          </button>
        )}
        <button
          type="button"
          className={buttonClass}
          onClick={() => void state.say({ kind: "paused" }).then(onClose)}
        >
          Put it down for now
        </button>
        <fieldset className="grid grid-cols-2 gap-1">
          <legend className="text-sm font-semibold">On this device</legend>
          {CHOICES.map(([key, label]) => (
            <label key={key} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={likes[key]}
                onChange={(e) => prefer({ [key]: e.target.checked })}
              />
              {label}
            </label>
          ))}
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-5"
              checked={ground === "lamplight"}
              onChange={(e) => setGround(e.target.checked ? "lamplight" : "daylight")}
            />
            Lamplight
          </label>
        </fieldset>
        <p className="text-sm text-soft">
          Space, Enter or a clicker: {likes.clicks ? "a stitch" : "the round is done"}. Backspace takes the
          last one back.
        </p>
        <button type="button" className={buttonClass} onClick={save}>
          Save the log as a file
        </button>
        {way.token && (
          <button type="button" className={buttonClass} onClick={() => void remove()}>
            Delete what I gave
          </button>
        )}
        <a className="underline" href="/make/">
          Other makings on this device
        </a>
        <p role="status" className="text-sm">
          {told}
        </p>
      </div>
    </Sheet>
  );
}
