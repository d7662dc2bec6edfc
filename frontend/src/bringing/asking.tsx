/** Where a text comes from: a file or a document, or pasted. */
import { Button, Field, inputClass } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import type { useText } from "./use-text";

const ENDINGS =
  ".txt,.md,.json,.csv,.html,.htm,.docx,.pdf,text/plain,text/markdown,application/json,text/csv,text/html,application/pdf," +
  "application/vnd.openxmlformats-officedocument.wordprocessingml.document";

export function Asking({
  text,
  typed,
  onTyped,
  onFile,
}: {
  text: ReturnType<typeof useText>;
  typed: string;
  onTyped: (text: string) => void;
  /** A file that is looked at before it is read, true when it was dealt with. */
  onFile?: (file: File) => boolean;
}) {
  const take = (file: File) => {
    if (!onFile?.(file)) void text.take(file);
  };
  if (text.way)
    return (
      <JobBar name="Reading the document" way={text.way} className="p-4">
        Reading the document …<Button onClick={text.stop}>Stop</Button>
      </JobBar>
    );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the field beside takes files by keys
    <div
      className="grid gap-4 md:grid-cols-2"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        const file = e.dataTransfer.files[0];
        if (!file) return;
        e.preventDefault();
        take(file);
      }}
    >
      <Field label="A file" hint="PDF, DOCX, HTML, Markdown, plain text, CSV or JSON; or drop it here">
        {(ids) => (
          <input
            {...ids}
            type="file"
            accept={ENDINGS}
            className={inputClass}
            disabled={text.busy}
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file) take(file);
            }}
          />
        )}
      </Field>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          take(new File([typed], "pasted.txt", { type: "text/plain" }));
        }}
      >
        <Field label="Or pasted">
          {(ids) => (
            <textarea
              {...ids}
              rows={8}
              className={inputClass}
              value={typed}
              placeholder={"Ears (make 2)\nR1: 6 sc in MR [6]\n…"}
              onChange={(e) => onTyped(e.target.value)}
            />
          )}
        </Field>
        <Button type="submit" weight="main" className="mt-2" disabled={text.busy || !typed.trim()}>
          {text.busy ? "Reading …" : "Read it"}
        </Button>
      </form>
    </div>
  );
}
