/** Saving a design as a file in an open format. */
import { Download } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { asRefused, sentence } from "../api/client";
import type { Design } from "../design/design";
import { allSent } from "../design/pending";
import { Button } from "../ui/controls";
import { menuItem, menuSheet, useSay } from "../ui/overlays";

const FILES: readonly (readonly [string, string, string])[] = [
  ["The whole design (JSON), to bring in again", "design", ""],
  ["Text, as you wrote it", "text", ""],
  ["Text, tidied and folded", "text", "?tidy=true"],
  ["Text, spelled out", "text", "?spelled=true"],
  ["Text for left-handed makers", "text", "?left=true"],
  ["Text in UK terms", "text", "?terms=uk"],
  ["Text in US terms", "text", "?terms=us"],
  ["Text in letters", "text", "?terms=letters"],
  ["Rounds in German", "text", "?language=de"],
  ["Rounds in French", "text", "?language=fr"],
  ["Rounds in Spanish", "text", "?language=es"],
  ["Rounds in Italian", "text", "?language=it"],
  ["Rounds in Dutch", "text", "?language=nl"],
  ["Markdown, with boxes to tick", "md", ""],
  ["Rounds as JSON", "json", ""],
  ["CSV, with the count table", "csv", ""],
  ["Charts as SVG", "svg", ""],
];

const MODELS: readonly (readonly [string, string])[] = [
  ["Figure as a 3D model (GLB)", "glb"],
  ["Figure as a 3D model (STL)", "stl"],
  ["Figure as a 3D model (OBJ)", "obj"],
];

export function SaveAs({ design }: { design: Design }) {
  const say = useSay();
  const fetchIt = async (path: string) => {
    try {
      await allSent(design.id);
      const got = await fetch(`/api/bench/${path}`);
      if (!got.ok) throw asRefused(await got.json(), got.status);
      const name =
        /filename="([^"]+)"/.exec(got.headers.get("Content-Disposition") ?? "")?.[1] ?? "design.txt";
      const link = document.createElement("a");
      link.href = URL.createObjectURL(await got.blob());
      link.download = name;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    } catch (e) {
      say(sentence(e), true);
    }
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button weight="quiet">
          <Download size={16} aria-hidden="true" /> Save as
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className={menuSheet}>
          {FILES.map(([label, to, query]) => (
            <DropdownMenu.Item
              key={label}
              className={menuItem}
              onSelect={() => void fetchIt(`file/${design.id}/${to}${query}`)}
            >
              {label}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 border-t border-line" />
          {MODELS.map(([label, ending]) => (
            <DropdownMenu.Item
              key={label}
              className={menuItem}
              onSelect={() => void fetchIt(`model/${design.id}/${ending}`)}
            >
              {label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
