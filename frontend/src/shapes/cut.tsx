/** A shape cut into parts of its own, each begun at its far end, their openings with equal counts. */
import { Scissors } from "lucide-react";
import { useState } from "react";
import { answer, api, type Schemas, sentence } from "../api/client";
import { type Design, useAct } from "../design/design";
import { Button, NumberField } from "../ui/controls";
import { useSay } from "../ui/overlays";
import { type Recipe, reshaped } from "./recipe";

type Piece = Schemas["PieceOut"];

function nameOf(pieces: Piece[], at: number): string {
  const piece = pieces[at];
  const alike = pieces.filter((p) => p.above === piece?.above);
  const side = piece?.above ? "Upper" : "Lower";
  return alike.length > 1 && piece ? `${side} piece ${alike.indexOf(piece) + 1}` : `${side} piece`;
}

export function Cut({
  design,
  recipe,
  question,
  at,
  onAt,
  onMade,
}: {
  design: Design;
  recipe: Recipe;
  question: Schemas["ShapeIn"];
  /** Where it is cut, in mm above its start. */
  at: number;
  onAt: (height: number) => void;
  onMade: (key: string) => void;
}) {
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const act = useAct(design.id);
  const say = useSay();
  const cut = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const pieces = await answer<Piece[]>(
        api.POST("/api/shapes/cut", { body: { recipe: question.recipe, height_mm: at } }),
      );
      const drafts = await Promise.all(
        pieces.map((p) => {
          const own = { ...reshaped(recipe, p.form), start: 0 };
          return answer<Schemas["ShapeOut"]>(
            api.POST("/api/shapes/draft", { body: { ...question, recipe: own } }),
          );
        }),
      );
      const made = await act.mutateAsync({
        do: "add-parts",
        parts: drafts.map(({ text, recipe }, i) => ({ name: nameOf(pieces, i), text, recipe })),
      });
      onMade(made.parts.at(-drafts.length)?.key ?? "");
      say(
        `Cut into ${drafts.length} parts: their openings have equal counts, to be joined stitch to stitch.`,
      );
    } catch (e) {
      setProblem(e);
    }
    setBusy(false);
  };
  return (
    <div className="mt-3 border-t border-line pt-2">
      <div className="flex items-end gap-2">
        <NumberField
          label="Cut at a height of"
          unit="mm"
          least={1}
          most={2000}
          value={at}
          onValue={(mm) => mm && onAt(mm)}
        />
        <Button onClick={() => void cut()} disabled={busy}>
          <Scissors size={16} aria-hidden /> {busy ? "Cutting …" : "Cut into parts"}
        </Button>
      </div>
      {problem !== null && (
        <p role="alert" className="mt-1 border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">
          {sentence(problem)}
        </p>
      )}
    </div>
  );
}
