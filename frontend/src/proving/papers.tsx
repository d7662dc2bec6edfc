/** Reports that came on paper, or as a table. */
import { useState } from "react";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { FileButton } from "../ui/file-button";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { type Call, useTestActs } from "./use-proving";

export function Papers({
  design,
  call,
  columns,
}: {
  design: Design;
  call: Call;
  columns: readonly string[];
}) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const { papers } = useTestActs(design.id);
  const first = columns.join(",");
  return (
    <>
      <Button onClick={() => setOpen(true)}>Reports on paper …</Button>
      {open && (
        <Dialog open title="Reports on paper" onOpen={setOpen}>
          <p className="mb-2 text-sm">
            One line a remark, with commas, semicolons or tabs; the first line names the columns:{" "}
            <code>{first}</code>. The kind is unclear, wrong count, did otherwise or liked. Without a part,
            the round is the number of a step.
          </p>
          <textarea
            aria-label="The table"
            className="min-h-40 w-full rounded-md border border-strong bg-panel p-2 font-mono text-sm"
            placeholder={`${first}\nRowan,Body,R7,unclear,Where does it begin?`}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <div className="mt-2 flex flex-wrap gap-2">
            <FileButton
              label="A table of reports"
              accept=".csv,text/csv,text/plain"
              onFile={(file) => void file.text().then(setText)}
            >
              From a file
            </FileButton>
            <Button
              weight="main"
              disabled={!text.trim() || papers.isPending}
              onClick={() => papers.mutate({ id: call.id, text })}
            >
              Take them in
            </Button>
          </div>
          {papers.data && (
            <div role="status" className="mt-2 text-sm">
              {papers.data.fresh} new remarks of {papers.data.testers}{" "}
              {papers.data.testers === 1 ? "tester" : "testers"}.
              <ul>
                {papers.data.unread.map((u) => (
                  <li key={u.line} className="border-l-4 border-madder px-2">
                    Line {u.line} was not taken: {u.why}
                  </li>
                ))}
              </ul>
            </div>
          )}
          <Refused error={papers.error} />
        </Dialog>
      )}
    </>
  );
}
