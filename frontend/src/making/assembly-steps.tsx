/** All pieces are worked: the steps of putting together, ticked off one by one. */
import { buttonClass, mainClass } from "./parts";
import type { MakingState } from "./use-making";

export function AssemblySteps({ state }: { state: MakingState }) {
  const { sheet } = state.row.making;
  const done = new Set(state.progress.steps);
  const left = sheet.steps.length - done.size;
  return (
    <section aria-label="Putting together" className="flex flex-col gap-2 p-3 md:col-span-2">
      <h1 className="text-2xl">{state.progress.finished ? "Finished" : "Putting together"}</h1>
      {sheet.cautions.length > 0 && (
        <ul aria-label="Safety" className="border-l-4 border-madder bg-madder-ground px-3 py-1.5 text-sm">
          {sheet.cautions.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <ol className="flex flex-col gap-2">
        {sheet.steps.map((text, i) => (
          <li key={text}>
            <button
              type="button"
              aria-pressed={done.has(i + 1)}
              className={`${buttonClass} w-full justify-start text-left ${done.has(i + 1) ? "line-through" : ""}`}
              onClick={() => void state.say({ kind: "step", step: i + 1, undone: done.has(i + 1) })}
            >
              {i + 1}. {text}
            </button>
          </li>
        ))}
      </ol>
      {state.progress.finished ? (
        <p className="border-l-4 border-moss bg-moss-ground px-3 py-1.5">
          Measure it and weigh what is left of the yarn under Measure: that is what later estimates are made
          of.
        </p>
      ) : (
        <button type="button" className={mainClass} onClick={() => void state.say({ kind: "finished" })}>
          {left > 0
            ? `It is finished (${left} ${left === 1 ? "step is" : "steps are"} not ticked off)`
            : "It is finished"}
        </button>
      )}
    </section>
  );
}
