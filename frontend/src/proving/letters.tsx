/** The letters about a design: what was sent, or would have been. */
import type { Design } from "../design/design";
import { Button, Panel } from "../ui/controls";
import { useLetters } from "./use-proving";

export function Letters({ design }: { design: Design }) {
  const { list, remove } = useLetters(design.id);
  const letters = list.data?.letters ?? [];
  if (letters.length === 0) return null;
  return (
    <Panel title="Letters">
      {list.data?.by_folder && (
        <p className="mb-2 border-l-4 border-weld bg-weld-ground px-2 text-sm">
          No mail server is set: these were written into the folder of letters and not sent.
        </p>
      )}
      <ul className="flex flex-col gap-1 text-sm">
        {letters.map((letter) => (
          <li key={letter.id} className="flex items-start gap-2 border-t border-line pt-1">
            <details className="flex-1">
              <summary>
                {letter.created.slice(0, 10)}, to {letter.to}: {letter.subject}
                {letter.failed && <strong> {letter.failed}</strong>}
              </summary>
              <pre className="mt-1 whitespace-pre-wrap font-sans">{letter.body}</pre>
            </details>
            <Button
              weight="quiet"
              aria-label={`Remove the letter to ${letter.to}`}
              onClick={() => remove.mutate(letter.id)}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
