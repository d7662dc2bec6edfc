/** Her own photographs in the booklet: of which step, cut how, in which order; and those that are still to be taken. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, Crop, Trash2 } from "lucide-react";
import { useState } from "react";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import { type Design, newKey } from "../design/design";
import { Button, FoldedPanel, IconButton, SelectField, TextField } from "../ui/controls";
import { FileButton, PICTURES } from "../ui/file-button";
import { useSay } from "../ui/overlays";
import { Cropping } from "./cropping";
import type { Page } from "./said";
import { useProof } from "./use-book";

export type Photo = NonNullable<Page["photos"]>[number];
type Picture = Schemas["PictureOut"];

/** Steps by key, as they are called in lists. */
function stepsOf(design: Design): [string, string][] {
  return (design.assembly.steps ?? []).map((s, i): [string, string] => [
    s.key,
    `step ${i + 1}${s.text ? `: ${s.text.slice(0, 40)}` : ""}`,
  ]);
}

export function Photos({
  design,
  value,
  set,
}: {
  design: Design;
  value: Page;
  set: (part: Partial<Page>) => void;
}) {
  const photos = value.photos ?? [];
  const pictures = usePictures(design);
  const add = useAddPhoto(design, (picture, step) =>
    set({ photos: [...photos, { ...FRESH, key: newKey(), picture: picture.id, step }] }),
  );
  const change = (key: string, more: Partial<Photo>) =>
    set({ photos: photos.map((p) => (p.key === key ? { ...p, ...more } : p)) });
  return (
    <FoldedPanel
      title="Photographs"
      said={photos.length === 0 ? "none of your own yet" : `${photos.length} of your own`}
      folded={photos.length === 0}
    >
      <ToTake design={design} busy={add.isPending} onFile={(file, step) => add.mutate({ file, step })} />
      <ol className="mb-3 flex flex-col gap-3">
        {photos.map((photo, at) => (
          <PhotoRow
            key={photo.key}
            photo={photo}
            number={at + 1}
            many={photos.length}
            picture={pictures.find((p) => p.id === photo.picture)}
            steps={stepsOf(design)}
            onChange={(more) => change(photo.key, more)}
            onMove={(by) => set({ photos: moved(photos, at, by) })}
            onRemove={() => set({ photos: photos.filter((p) => p.key !== photo.key) })}
          />
        ))}
      </ol>
      <FileButton
        label="Photograph file"
        accept={PICTURES}
        busy={add.isPending ? "Uploading …" : null}
        onFile={(file) => add.mutate({ file, step: null })}
      >
        Add a photograph
      </FileButton>
    </FoldedPanel>
  );
}

const FRESH = { alt: "", caption: "", left: 0, top: 0, wide: 1, tall: 1 };

/** A list with one member moved up (-1) or down (1). */
export function moved<T>(list: readonly T[], at: number, by: -1 | 1): T[] {
  const next = [...list];
  const [one] = next.splice(at, 1);
  if (one !== undefined) next.splice(at + by, 0, one);
  return next;
}

function usePictures(design: Design): readonly Picture[] {
  const pictures = useQuery({
    queryKey: ["pictures", design.id],
    queryFn: () =>
      answer<Picture[]>(
        api.GET("/api/designs/{design_id}/pictures", { params: { path: { design_id: design.id } } }),
      ),
  });
  return pictures.data ?? [];
}

function useAddPhoto(design: Design, onAdded: (picture: Picture, step: string | null) => void) {
  const queries = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: async ({ file, step }: { file: File; step: string | null }) => {
      const picture = await postFile<Picture>(`/api/designs/${design.id}/pictures`, file);
      return { picture, step };
    },
    onSuccess: async ({ picture, step }) => {
      await queries.invalidateQueries({ queryKey: ["pictures", design.id] });
      onAdded(picture, step);
    },
    onError: (error) => say(sentence(error), true),
  });
}

/** The shot list: what must be shown and no rendered picture shows; a photograph ticks it off. */
function ToTake({
  design,
  busy,
  onFile,
}: {
  design: Design;
  busy: boolean;
  onFile: (file: File, step: string) => void;
}) {
  const proof = useProof(design);
  const wanted = (proof.data ?? []).filter((f) => f.step && /^(no-picture|picture-promised)$/.test(f.code));
  if (wanted.length === 0) return null;
  return (
    <section aria-label="Photographs still to take" className="mb-3">
      <h3 className="mb-1 font-sans text-sm font-semibold">Still to take ({wanted.length})</h3>
      <ul className="flex flex-col gap-2">
        {wanted.map((f) => (
          <li key={`${f.code} ${f.step}`} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
            <p className="mb-1">{f.text}</p>
            <FileButton
              label={`Photograph for: ${f.text}`}
              accept={PICTURES}
              busy={busy ? "Uploading …" : null}
              onFile={(file) => f.step && onFile(file, f.step)}
            >
              Add it
            </FileButton>
          </li>
        ))}
      </ul>
    </section>
  );
}

function PhotoRow({
  photo,
  number,
  many,
  picture,
  steps,
  onChange,
  onMove,
  onRemove,
}: {
  photo: Photo;
  number: number;
  many: number;
  picture: Picture | undefined;
  steps: readonly [string, string][];
  onChange: (more: Partial<Photo>) => void;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
}) {
  const [cropping, setCropping] = useState(false);
  const name = `photograph ${number}`;
  return (
    <li className="rounded-md border border-line p-2">
      {picture ? (
        <img src={picture.url} alt={photo.alt || name} className="mb-2 max-h-32 w-full object-contain" />
      ) : (
        <p className="mb-2 text-sm text-soft">Its picture was removed from the design.</p>
      )}
      <SelectField
        label="Shows"
        value={photo.step ?? ""}
        onValue={(step) => onChange({ step: step || null })}
        options={[["", "the finished figure"], ...steps]}
      />
      <TextField
        label="In words, for whoever does not see it"
        maxLength={120}
        value={photo.alt ?? ""}
        onChange={(e) => onChange({ alt: e.target.value })}
        className="mt-2"
      />
      <TextField
        label="Printed below"
        maxLength={120}
        value={photo.caption ?? ""}
        onChange={(e) => onChange({ caption: e.target.value })}
        className="mt-2"
      />
      <div className="mt-2 flex items-center gap-1">
        {picture && (
          <Button weight="quiet" onClick={() => setCropping(true)} aria-label={`Crop ${name}`}>
            <Crop size={16} aria-hidden /> Crop
          </Button>
        )}
        <IconButton label={`Move ${name} up`} disabled={number === 1} onClick={() => onMove(-1)}>
          <ArrowUp size={16} />
        </IconButton>
        <IconButton label={`Move ${name} down`} disabled={number === many} onClick={() => onMove(1)}>
          <ArrowDown size={16} />
        </IconButton>
        <IconButton label={`Take ${name} out`} onClick={onRemove}>
          <Trash2 size={16} />
        </IconButton>
      </div>
      {cropping && picture && (
        <Cropping photo={photo} picture={picture} onChange={onChange} onClose={() => setCropping(false)} />
      )}
    </li>
  );
}
