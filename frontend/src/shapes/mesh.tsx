/** A 3D model from a file: which way is up, where rounds begin, how tall. */
import { useMutation } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { answer, api, asRefused, cookie, OFFLINE, Refused, type Schemas, sentence } from "../api/client";
import { NumberField, SelectField } from "../ui/controls";
import { FileButton } from "../ui/file-button";
import { type Mesh, meshAt } from "./recipe";

const MeshPole = lazy(() => import("./mesh-pole"));

type Brought = Schemas["MeshOut"];

const POLES = [
  ["foot", "its foot"],
  ["top", "its top"],
  ["front", "its front (a nose)"],
  ["back", "its back (a tail)"],
  ["left", "its left"],
  ["right", "its right"],
] as const;

async function bring(file: File, up: string, pole: string, height: number): Promise<Brought> {
  const body = new FormData();
  body.append("file", file);
  body.append("up", up);
  body.append("pole", pole);
  body.append("height_mm", String(height));
  const got = await fetch("/api/shapes/mesh", {
    method: "POST",
    body,
    headers: { "X-CSRFToken": cookie("csrftoken") },
  }).catch(() => {
    throw new Refused(OFFLINE);
  });
  const said: unknown = await got.json().catch(() => null);
  if (!got.ok) throw asRefused(said, got.status);
  return said as Brought;
}

type MeshProps = {
  form: Mesh | null;
  /** Height of the mesh as it is drafted now. */
  height: number;
  onForm: (form: Mesh) => void;
};

export function MeshFields(of: MeshProps) {
  const { form, onForm } = of;
  const bringing = useBringing(of);
  const { read } = bringing;
  return (
    <div className="mt-2 flex flex-col gap-2">
      <FileButton
        label="Model file"
        accept=".obj,.stl,.ply,.glb"
        busy={read.isPending ? "Reading …" : null}
        onFile={bringing.choose}
      >
        {form ? "Another model" : "Choose a model"}
      </FileButton>
      {!form && !read.isPending && (
        <p className="text-sm text-soft">
          OBJ, STL, PLY or GLB, one closed body, up to 20 MB. Nothing is fetched from elsewhere.
        </p>
      )}
      {read.error && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">
          {sentence(read.error)}
        </p>
      )}
      {read.data?.notes.map((note) => (
        <p key={note} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
          {note}
        </p>
      ))}
      {form && <Begin form={form} onForm={onForm} />}
      <MeshSizes {...of} bringing={bringing} />
    </div>
  );
}

/** The file, and how it is stood up: read anew whenever that changes. */
function useBringing({ form, height, onForm }: MeshProps) {
  const [file, setFile] = useState<File | null>(null);
  const [up, setUp] = useState("z");
  const [pole, setPole] = useState<(typeof POLES)[number][0]>("foot");
  const [tall, setTall] = useState(100);
  const read = useMutation({
    mutationFn: (how: { file: File; up: string; pole: string }) =>
      bring(how.file, how.up, how.pole, form ? height : tall),
    onSuccess: (got) => onForm(got.form),
  });
  const again = (next: { file?: File | null; up?: string; pole?: string }) => {
    const how = { file, up, pole, ...next };
    if (how.file) read.mutate({ ...how, file: how.file });
  };
  return {
    file,
    up,
    pole,
    tall,
    setTall,
    read,
    choose: (chosen: File) => {
      setFile(chosen);
      again({ file: chosen });
    },
    turn: (next: string) => {
      setUp(next);
      again({ up: next });
    },
    stand: (next: typeof pole) => {
      setPole(next);
      again({ pole: next });
    },
  };
}

/** The mesh itself, to point at where its rounds shall begin. */
function Begin({ form, onForm }: { form: Mesh; onForm: (form: Mesh) => void }) {
  const begin = useMutation({
    mutationFn: (corner: number) =>
      answer<Brought>(api.POST("/api/shapes/begin", { body: { form, corner } })),
    onSuccess: (got) => onForm(got.form),
  });
  return (
    <figure>
      <Suspense fallback={null}>
        <MeshPole form={form} onPole={begin.mutate} />
      </Suspense>
      <figcaption className="text-sm text-soft">
        Rounds begin at the red dot: click another place, or turn it and press P.
      </figcaption>
      {begin.error && (
        <p role="alert" className="text-sm">
          {sentence(begin.error)}
        </p>
      )}
    </figure>
  );
}

function MeshSizes({
  form,
  height,
  onForm,
  bringing,
}: MeshProps & { bringing: ReturnType<typeof useBringing> }) {
  const { file, up, pole, tall, setTall, turn, stand } = bringing;
  return (
    <div className="grid grid-cols-2 gap-2">
      <NumberField
        label="Height"
        unit="mm"
        least={10}
        most={1500}
        value={Math.round(form ? height : tall)}
        onValue={(mm) => {
          if (!mm) return;
          setTall(mm);
          if (form) onForm(meshAt(form, mm, height));
        }}
      />
      {(file || !form) && (
        <>
          <SelectField
            label="Up in the file"
            value={up}
            onValue={turn}
            options={[
              ["z", "z"],
              ["y", "y"],
            ]}
          />
          <SelectField className="col-span-2" label="Begin at" value={pole} onValue={stand} options={POLES} />
        </>
      )}
    </div>
  );
}
