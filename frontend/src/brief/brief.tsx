/** Brief: what is to be made, for whom, how big, from which pictures. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import { type Design, newKey } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { Button, Field, IconButton, inputClass, NumberField, Panel, SelectField } from "../ui/controls";
import { FileButton, PICTURES } from "../ui/file-button";
import { Confirm, useSay } from "../ui/overlays";
import { ComesOut } from "./comes-out";
import { Commission } from "./commission";
import { Hazards } from "./hazards";
import { type Box, PictureBoard, sizeOf } from "./picture-board";
import { Plan, type Planned, propose, within } from "./plan";
import { SketchDialog } from "./sketch";

type Page = Design["brief"];
type Picture = Schemas["PictureOut"];

export function BriefStop() {
  const design = useShownDesign();
  const page = usePage(design, "brief");
  const { value, change } = page;
  const set = (part: Partial<Page>) => change({ ...value, ...part });
  const plan = value.plan ?? [];
  const onDrawn = useDrawing(value, change);
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
          <ComesOut design={design} wished={value.height_mm ?? null} />
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
        <Pictures design={design} plan={plan} onDrawn={onDrawn} />
        <Plan design={design} plan={plan} onPlan={(next) => set({ plan: next })} />
        <Commission
          design={design}
          value={value.commission ?? null}
          saved={page.state === "saved"}
          onValue={(commission) => set({ commission })}
        />
      </div>
    </div>
  );
}

/** Height in mm that a figure is taken to have while none is wished for. */
const USUAL_MM = 120;

/** A box drawn on a picture becomes a planned part, with the solid that is mostly made so. All boxes of the picture together
 * are as tall as the figure, so those drawn before are sized anew, unless they are begun. */
function useDrawing({ plan = [], height_mm, ...rest }: Page, change: (page: Page) => void) {
  const say = useSay();
  return (box: Box, picture: Picture) => {
    const boxes = [...plan.flatMap((p) => (p.box?.picture === box.picture ? [p.box] : [])), box];
    const sized = (of: Box) => {
      const { wide, tall } = sizeOf(of, boxes, picture, height_mm ?? USUAL_MM);
      return { wide_mm: within(wide), tall_mm: within(tall) };
    };
    const name = `Part ${plan.length + 1}`;
    const before = plan.map((p) =>
      p.box?.picture === box.picture && !p.part ? { ...p, ...sized(p.box) } : p,
    );
    const put = (more: Partial<Planned>) =>
      change({
        ...rest,
        height_mm,
        plan: [...before, { key: newKey(), name, make: 1, part: null, box, ...sized(box), ...more }],
      });
    const { wide_mm, tall_mm } = sized(box);
    propose(name, wide_mm, tall_mm).then(put, (e: unknown) => {
      say(sentence(e), true);
      put({});
    });
  };
}

function upload(design: number, file: File): Promise<Picture> {
  return postFile(`/api/designs/${design}/pictures`, file);
}

function Pictures({
  design,
  plan,
  onDrawn,
}: {
  design: Design;
  plan: readonly Planned[];
  onDrawn: (box: Box, picture: Picture) => void;
}) {
  const queries = useQueryClient();
  const say = useSay();
  const [sketching, setSketching] = useState(false);
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
        <span className="flex flex-wrap gap-2">
          <Button onClick={() => setSketching(true)}>Sketch</Button>
          <FileButton
            label="Picture file"
            accept={PICTURES}
            busy={add.isPending ? "Uploading …" : null}
            onFile={add.mutate}
          >
            Add a picture
          </FileButton>
        </span>
      }
    >
      {sketching && (
        <SketchDialog
          design={design.id}
          yarns={(design.gauge.yarns ?? []).map((y) => [y.name, y.colour] as const)}
          pictures={pictures.data ?? []}
          onPicture={(file) => upload(design.id, file).then(done.onSuccess)}
          onClose={() => setSketching(false)}
        />
      )}
      {pictures.data?.length === 0 && (
        <p className="text-soft">
          Sketch one here, or bring a photograph, a scrap of paper: PNG, JPEG or WebP up to 10 MB. It stays
          yours alone.
        </p>
      )}
      <ul className="grid gap-3">
        {pictures.data?.map((p, i) => (
          <li key={p.id} className="relative">
            <PictureBoard
              picture={p}
              alt={`Reference ${i + 1}`}
              plan={plan}
              onDrawn={(box) => onDrawn(box, p)}
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
