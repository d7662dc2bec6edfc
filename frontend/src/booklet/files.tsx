/** Which edition is shown, how it is printed, and its files. */
import type { Design } from "../design/design";
import { Button, Panel } from "../ui/controls";
import { type Asked, ENDINGS, fileUrl, templatesUrl } from "./edition";
import { EditionFields } from "./edition-fields";

export function Files({
  design,
  asked,
  onAsked,
  painting,
  templates,
  flush,
}: {
  design: Design;
  asked: Asked;
  onAsked: (more: Partial<Asked>) => void;
  /** How many pictures are still being painted. */
  painting: number;
  /** Pages of templates in true size. */
  templates: number;
  flush: () => Promise<void>;
}) {
  return (
    <Panel title="Edition and files">
      <EditionFields
        design={design}
        asked={asked}
        onAsked={onAsked}
        painting={painting}
        columns="grid-cols-2"
      />
      <p className="mt-3 mb-1 text-sm font-semibold">Save this draft as</p>
      <div className="flex flex-wrap gap-2" onPointerDown={() => void flush()}>
        {ENDINGS.map(([ending, name]) => (
          <Button key={ending} weight={ending === "pdf" ? "main" : "plain"} asChild>
            <a href={fileUrl(design, asked, ending)} download>
              {name}
            </a>
          </Button>
        ))}
        {templates > 0 && (
          <Button asChild>
            <a href={templatesUrl(design, asked)} download>
              Templates
            </a>
          </Button>
        )}
      </div>
    </Panel>
  );
}
