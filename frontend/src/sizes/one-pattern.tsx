/** One written pattern for the first size and all others of its yarn, to read, copy and save. */
import { useQuery } from "@tanstack/react-query";
import { Copy, Download } from "lucide-react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { Dialog, useSay } from "../ui/overlays";
import { Refused } from "../ui/refused";
import type { Entry } from "./asking";

function save(text: string, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "text/plain" }));
  link.download = `${name} in all sizes.txt`;
  link.click();
  URL.revokeObjectURL(link.href);
}

export function OnePattern({
  design,
  entries,
  onClose,
}: {
  design: Design;
  entries: Entry[];
  onClose: () => void;
}) {
  const say = useSay();
  const found = useQuery({
    queryKey: ["figure", design.id, "one-pattern", design.revision, entries],
    queryFn: () =>
      answer<Schemas["PatternForAll"]>(
        api.POST("/api/designs/{design_id}/sizes/pattern", {
          params: { path: { design_id: design.id } },
          body: { sizes: entries },
        }),
      ),
    retry: false,
  });
  const copy = async (text: string) => {
    try {
      await navigator.clipboard.writeText(text);
      say("The pattern is copied.");
    } catch {
      say("The browser does not let it be copied; save it instead.", true);
    }
  };
  return (
    <Dialog
      open
      onOpen={onClose}
      wide
      title="One pattern for all sizes"
      about="Where sizes differ, the first one's number stands before those of the others in brackets; “-” for a size that has no such round."
    >
      <Refused error={found.error} />
      {!found.data && !found.error && (
        <p role="status" className="p-4 text-soft">
          Writing …
        </p>
      )}
      {found.data && (
        <>
          <section
            tabIndex={0}
            aria-label="The pattern"
            className="max-h-[60vh] overflow-auto rounded border border-line p-2 text-sm whitespace-pre-wrap"
          >
            {found.data.text}
          </section>
          <div className="mt-3 flex justify-end gap-2">
            <Button onClick={() => void copy(found.data.text)}>
              <Copy size={16} aria-hidden="true" /> Copy
            </Button>
            <Button weight="main" onClick={() => save(found.data.text, design.name)}>
              <Download size={16} aria-hidden="true" /> Save as text
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}
