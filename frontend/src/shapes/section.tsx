/** The cross-section of a traced shape: a circle, or what a drawing says. */
import { useMutation } from "@tanstack/react-query";
import { postFile, refusal, type Schemas, sentence } from "../api/client";
import { Button } from "../ui/controls";
import { FileButton } from "../ui/file-button";
import type { Traced } from "./recipe";

const NONE = "This outline is no cross-section: it has to be seen whole from its middle.";

export function Section({ form, onForm }: { form: Traced; onForm: (form: Traced) => void }) {
  const read = useMutation({
    mutationFn: async (file: File) => {
      const got = await postFile<Schemas["TracingOut"]>("/api/shapes/drawing", file);
      if (!got.section) throw refusal(NONE);
      return got.section;
    },
    onSuccess: (section) => onForm({ ...form, section }),
  });
  const section = form.section;
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <svg viewBox="-22 -22 44 44" className="size-9" role="img" aria-label={said(section)}>
        <path d={pathOf(section)} fill="var(--weld-ground)" stroke="var(--weld)" strokeWidth="1.5" />
      </svg>
      <FileButton
        label="Drawing of the cross-section"
        accept=".svg"
        busy={read.isPending ? "Reading …" : null}
        onFile={read.mutate}
      >
        Cross-section from SVG
      </FileButton>
      {section.length > 0 && (
        <Button
          weight="quiet"
          className="px-2 py-0.5 text-sm"
          onClick={() => onForm({ ...form, section: [] })}
        >
          Round again
        </Button>
      )}
      {read.error && (
        <p role="alert" className="w-full">
          {sentence(read.error)}
        </p>
      )}
    </div>
  );
}

function said(section: readonly number[]): string {
  return section.length ? "Cross-section from a drawing, its front below" : "Cross-section: a circle";
}

/** From above, its front below. */
export function pathOf(section: readonly number[]): string {
  const reaches = section.length ? section : Array<number>(48).fill(1);
  const most = Math.max(...reaches);
  const points = reaches.map((reach, i) => {
    const angle = (i / reaches.length) * 2 * Math.PI;
    const r = (20 * reach) / most;
    return `${(-Math.sin(angle) * r).toFixed(2)} ${(Math.cos(angle) * r).toFixed(2)}`;
  });
  return `M${points.join("L")}Z`;
}
