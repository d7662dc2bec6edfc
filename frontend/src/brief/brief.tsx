/** Brief: what is to be made, for whom, how big, from which pictures. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import type { Design } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { Field, IconButton, inputClass, NumberField, Panel, SelectField } from "../ui/controls";
import { FileButton, PICTURES } from "../ui/file-button";
import { Confirm, useSay } from "../ui/overlays";
import { Hazards } from "./hazards";

type Page = Design["brief"];
type Picture = Schemas["PictureOut"];

export function BriefStop() {
  const design = useShownDesign();
  const page = usePage(design, "brief");
  const { value, change } = page;
  const set = (part: Partial<Page>) => change({ ...value, ...part });
  return (
    <div className="mx-auto w-full max-w-6xl p-5">
      <div className="mb-3 flex items-center justify-between">
        <h1 className="text-2xl">Brief</h1>
        <SaveMark state={page.state} />
      </div>
      <PageRefusal {...page} />
      <div className="grid gap-5 lg:grid-cols-2">
        <Panel title="What and for whom">
          <div className="grid grid-cols-2 gap-3">
            <SelectField
              label="Made for"
              value={value.audience ?? "play"}
              onValue={(audience) => set({ audience })}
              options={[
                ["under-three", "a child under three"],
                ["play", "playing"],
                ["display", "looking at"],
              ]}
            />
            <SelectField
              label="Level"
              value={value.level ?? "easy"}
              onValue={(level) => set({ level })}
              options={[
                ["basic", "basic"],
                ["easy", "easy"],
                ["intermediate", "intermediate"],
                ["complex", "complex"],
              ]}
            />
            <NumberField
              label="Height wished for"
              unit="mm"
              optional
              least={10}
              most={3000}
              value={value.height_mm ?? null}
              onValue={(height_mm) => set({ height_mm })}
              className="col-span-2"
            />
          </div>
          {value.audience === "under-three" && (
            <p role="note" className="mt-3 rounded-md border-l-4 border-madder bg-madder-ground px-3 py-2">
              Under three: no safety eyes, beads, buttons, pellets or magnets, which are small parts;
              embroider the face and sew every part on firmly. Toy rules differ by country (EN 71, ASTM F963,
              ISO 8124, 16 CFR 1501): whoever sells toys checks them with qualified people.
            </p>
          )}
          {value.audience === "under-three" && <Hazards design={design} />}
          <Field label="What it is, in the booklet's first lines" className="mt-3">
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-28`}
                maxLength={5000}
                value={value.intro ?? ""}
                onChange={(e) => set({ intro: e.target.value })}
              />
            )}
          </Field>
          <Field label="Notes for yourself" className="mt-3">
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-28`}
                maxLength={5000}
                value={value.notes ?? ""}
                onChange={(e) => set({ notes: e.target.value })}
              />
            )}
          </Field>
        </Panel>
        <Pictures design={design} />
      </div>
    </div>
  );
}

function upload(design: number, file: File): Promise<Picture> {
  return postFile(`/api/designs/${design}/pictures`, file);
}

function Pictures({ design }: { design: Design }) {
  const queries = useQueryClient();
  const say = useSay();
  const key = ["pictures", design.id];
  const pictures = useQuery({
    queryKey: key,
    queryFn: () =>
      answer<Picture[]>(
        api.GET("/api/designs/{design_id}/pictures", { params: { path: { design_id: design.id } } }),
      ),
  });
  const done = {
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
    onError: (e: unknown) => say(sentence(e), true),
  };
  const add = useMutation({ mutationFn: (file: File) => upload(design.id, file), ...done });
  const remove = useMutation({
    mutationFn: (id: number) =>
      answer(api.DELETE("/api/designs/pictures/{picture_id}", { params: { path: { picture_id: id } } })),
    ...done,
  });
  return (
    <Panel
      title="Reference pictures"
      aside={
        <FileButton
          label="Picture file"
          accept={PICTURES}
          busy={add.isPending ? "Uploading …" : null}
          onFile={add.mutate}
        >
          Add a picture
        </FileButton>
      }
    >
      {pictures.data?.length === 0 && (
        <p className="text-soft">
          A sketch, a photograph, a scrap of paper: PNG, JPEG or WebP up to 10 MB. It stays yours alone.
        </p>
      )}
      <ul className="grid grid-cols-2 gap-3">
        {pictures.data?.map((p, i) => (
          <li key={p.id} className="relative">
            <img
              src={p.url}
              width={p.width}
              height={p.height}
              alt={`Reference ${i + 1}`}
              className="h-auto w-full rounded-md border border-line"
            />
            <Confirm
              trigger={
                <IconButton label={`Remove reference ${i + 1}`} className="absolute top-1 right-1 bg-panel">
                  <X size={16} />
                </IconButton>
              }
              title="Remove this picture?"
              about="It is gone for good."
              yes="Remove it"
              onYes={() => remove.mutate(p.id)}
            />
          </li>
        ))}
      </ul>
    </Panel>
  );
}
