/** Switches over the figure: what is shown beside its plain look. */
import { Button } from "../ui/controls";

export type Tool = "section" | "stretch" | "ruler" | "hand" | "left" | "before" | "target" | "distance";

const TOOLS: [Tool, string, string][] = [
  ["section", "Cut open", "cuts the figure along its middle"],
  ["stretch", "Stretch", "colours stitches by how far they are pulled"],
  ["ruler", "Ruler", "centimetres beside the figure"],
  ["hand", "Hand", "a hand beside it, 18.5 cm long"],
  ["left", "Left-handed", "the figure as a left-hander makes it: its mirror image, lean and all"],
  ["before", "Before", "the figure before the last change, as a net"],
  ["distance", "Distance", "colours stitches by how far they lie from the target"],
  ["target", "Target", "the shape that was drafted for, as a net"],
];

export function ToolBar({
  tools,
  onTools,
  able,
}: {
  tools: ReadonlySet<Tool>;
  onTools: (tools: ReadonlySet<Tool>) => void;
  able: { before: boolean; target: boolean; distance: boolean };
}) {
  const shown = TOOLS.filter(([tool]) => !(tool in able) || able[tool as keyof typeof able]);
  return (
    <div className="flex flex-wrap gap-1 px-2 py-1" role="group" aria-label="Show on the figure">
      {shown.map(([tool, name, what]) => (
        <Button
          key={tool}
          weight="quiet"
          className="px-2 py-0.5 text-sm"
          aria-pressed={tools.has(tool)}
          title={what}
          onClick={() => {
            const next = new Set(tools);
            if (!next.delete(tool)) next.add(tool);
            onTools(next);
          }}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}
