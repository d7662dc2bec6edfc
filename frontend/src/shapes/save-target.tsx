/** The shape aimed at as a file: its surface as OBJ, its outlines as SVG. */
import { Download } from "lucide-react";
import { cookie } from "../api/client";
import { Button } from "../ui/controls";
import { useSay } from "../ui/overlays";
import type { Recipe } from "./recipe";

export function SaveTarget({ recipe }: { recipe: Recipe }) {
  const say = useSay();
  const save = async (ending: "obj" | "svg") => {
    try {
      const got = await fetch(`/api/shapes/target.${ending}`, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-CSRFToken": cookie("csrftoken") },
        body: JSON.stringify(recipe),
      });
      if (!got.ok) throw new Error();
      const link = document.createElement("a");
      link.href = URL.createObjectURL(await got.blob());
      link.download = `shape.${ending}`;
      link.click();
      URL.revokeObjectURL(link.href);
    } catch {
      say("The studio does not answer, so no file was written. Try again.", true);
    }
  };
  return (
    <p className="mt-2 flex items-center gap-1 text-sm text-soft">
      <Download size={16} aria-hidden /> Save the shape as
      {(["obj", "svg"] as const).map((ending) => (
        <Button key={ending} weight="quiet" className="px-1.5 py-0 text-sm" onClick={() => void save(ending)}>
          {ending.toUpperCase()}
        </Button>
      ))}
    </p>
  );
}
