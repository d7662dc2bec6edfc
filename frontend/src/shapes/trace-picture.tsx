/** The picture that an outline is traced over: chosen, brought in, and followed by the studio where it can. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ScanSearch } from "lucide-react";
import { useState } from "react";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import type { Design } from "../design/design";
import { Button, SelectField } from "../ui/controls";
import { FileButton, PICTURES } from "../ui/file-button";
import type { Traced } from "./recipe";
import { found, tallOf } from "./trace-points";

type Picture = Schemas["PictureOut"];

function useReferences(design: Design) {
  return useQuery({
    queryKey: ["pictures", design.id],
    queryFn: () =>
      answer<Picture[]>(
        api.GET("/api/designs/{design_id}/pictures", { params: { path: { design_id: design.id } } }),
      ),
  });
}

/** The design's reference pictures. */
export function usePictures(design: Design): Picture[] {
  return useReferences(design).data ?? [];
}

export function TracePicture({
  design,
  form,
  onForm,
}: {
  design: Design;
  form: Traced;
  onForm: (form: Traced) => void;
}) {
  const queries = useQueryClient();
  const pictures = usePictures(design);
  const [notes, setNotes] = useState<string[]>([]);
  const lay = (picture: Picture) =>
    onForm({
      ...form,
      picture: {
        number: picture.id,
        mm_per_px: tallOf(form.front) / (picture.height * 0.9),
        pole_x: picture.width / 2,
        pole_y: picture.height * 0.95,
      },
    });
  const add = useMutation({
    mutationFn: (file: File) => postFile<Picture>(`/api/designs/${design.id}/pictures`, file),
    onSuccess: (picture) => {
      queries.invalidateQueries({ queryKey: ["pictures", design.id] });
      lay(picture);
    },
  });
  const find = useMutation({
    mutationFn: (picture: number) =>
      answer<Schemas["TracingOut"]>(api.POST("/api/shapes/outline", { body: { picture } })),
    onSuccess: (got, picture) => {
      setNotes(got.notes);
      onForm(found(form, picture, got, tallOf(form.front)));
    },
  });
  const draw = useMutation({
    mutationFn: (file: File) => postFile<Schemas["TracingOut"]>("/api/shapes/drawing", file),
    onSuccess: (got) => {
      setNotes(got.notes);
      const tall = Math.max(...got.handles.map((h) => h[1] ?? 0));
      onForm({ ...found(form, 0, got, got.mm ? tall * got.mm : tallOf(form.front)), picture: null });
    },
  });
  const problem = add.error ?? find.error ?? draw.error;
  const laid = form.picture && pictures.some((p) => p.id === form.picture?.number) ? form.picture : null;
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap items-end gap-2">
        <SelectField
          className="min-w-32 flex-1"
          label="Over the picture"
          value={laid ? String(laid.number) : ""}
          onValue={(id) => {
            const picture = pictures.find((p) => String(p.id) === id);
            if (picture) lay(picture);
            else onForm({ ...form, picture: null });
          }}
          options={[["", "none"], ...pictures.map((p, i) => [String(p.id), `Reference ${i + 1}`] as const)]}
        />
        <FileButton
          label="Picture to trace"
          accept={PICTURES}
          busy={add.isPending ? "Uploading …" : null}
          onFile={add.mutate}
        >
          Add a picture
        </FileButton>
        <FileButton
          label="Outline as SVG"
          accept="image/svg+xml,.svg"
          busy={draw.isPending ? "Reading …" : null}
          onFile={draw.mutate}
        >
          From an SVG
        </FileButton>
      </div>
      {laid && (
        <Button onClick={() => find.mutate(laid.number)} disabled={find.isPending}>
          <ScanSearch size={16} aria-hidden /> {find.isPending ? "Looking …" : "Find the outline"}
        </Button>
      )}
      {problem && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">
          {sentence(problem)}
        </p>
      )}
      {notes.map((note) => (
        <p key={note} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
          {note}
        </p>
      ))}
    </div>
  );
}
