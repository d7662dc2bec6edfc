/** A scale to try with: it shows what is put on it, a tenth of a gram off as kitchen scales are, and sends its reading. */
import { useState } from "react";
import { boxClass, Labelled, mainClass } from "./parts";
import { showReading } from "./scale-line";

const MOST = 500;

export function Scale() {
  const [load, setLoad] = useState(48);
  const [shown, setShown] = useState(48);
  const [sent, setSent] = useState("");
  const put = (grams: number) => {
    setLoad(grams);
    setShown(Math.max(0, Math.round(10 * (grams + (Math.random() - 0.5) / 5)) / 10));
  };
  return (
    <main className="mx-auto w-full max-w-md p-4">
      <h1 className="mb-1 text-2xl">A scale to try with</h1>
      <p className="mb-3 text-soft">
        Stands in for a kitchen scale: put a ball on it, and send what it shows to the making that is open in
        another window, under Measure.
      </p>
      <Labelled label="On the scale, grams">
        {(id) => (
          <input
            id={id}
            type="range"
            min={0}
            max={MOST}
            step={0.5}
            className={boxClass}
            value={load}
            onChange={(e) => put(Number(e.target.value))}
          />
        )}
      </Labelled>
      <p className="my-3 rounded-md border border-strong bg-sunk p-4 text-right text-4xl" aria-live="polite">
        {shown.toFixed(1)} g
      </p>
      <button
        type="button"
        className={`${mainClass} w-full`}
        onClick={() => {
          showReading(shown);
          setSent(`${shown.toFixed(1)} g was sent.`);
        }}
      >
        Send the reading
      </button>
      <p role="status" className="mt-2 text-sm">
        {sent}
      </p>
    </main>
  );
}
