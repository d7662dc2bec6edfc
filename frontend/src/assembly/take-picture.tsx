/** A picture of the figure to keep: from a side or turned, on any ground, painted by the studio. */
import { useQueryClient } from "@tanstack/react-query";
import { Camera, Download } from "lucide-react";
import { useMemo, useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { useRest } from "../figure/use-rest";
import { Button, Check, NumberField, SelectField } from "../ui/controls";
import { useCommands } from "../ui/keys";
import { Dialog } from "../ui/overlays";

type Look = Required<Omit<Schemas["LookIn"], "part" | "after">>;

const SIDES = [
  ["between", "between front and side"],
  ["front", "front"],
  ["left", "left side"],
  ["right", "right side"],
  ["back", "back"],
  ["top", "top"],
] as const;
const GROUNDS = [
  ["", "none, transparent"],
  ["#ffffff", "white"],
  ["#f6f1e6", "paper"],
  ["#2d2621", "dark"],
] as const;
const WIDTHS = [400, 800, 1600, 2400] as const;
const FIRST: Look = {
  side: "between",
  around: 0,
  above: 0,
  width: 800,
  ground: null,
  shadow: true,
  step: null,
};

/** The address of a picture; it is there once it is painted. */
export function pictureOf(design: number, look: Look): string {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(look)) if (value !== null) query.set(name, String(value));
  return `/api/bench/picture/${design}?${query}`;
}

export function TakePicture({ design }: { design: Design }) {
  const [open, setOpen] = useState(false);
  const commands = useMemo(() => [{ name: "Take a picture of the figure", run: () => setOpen(true) }], []);
  useCommands(commands);
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        <Camera size={16} aria-hidden /> Take a picture
      </Button>
      {open && <Taking design={design} onClose={() => setOpen(false)} />}
    </>
  );
}

function Taking({ design, onClose }: { design: Design; onClose: () => void }) {
  const [look, setLook] = useState(FIRST);
  const set = (more: Partial<Look>) => setLook({ ...look, ...more });
  return (
    <Dialog open wide onOpen={(o) => !o && onClose()} title={`A picture of ${design.name}`}>
      <div className="grid gap-4 sm:grid-cols-[minmax(0,26rem)_minmax(12rem,1fr)]">
        <Painted design={design} look={look} />
        <div className="flex flex-col gap-3">
          <SelectField
            label="Of"
            value={look.step ?? ""}
            onValue={(step) => set({ step: step || null })}
            options={[["", "the whole figure"], ...stepsOf(design)]}
            hint={look.step ? "As it is at that step: what it adds is in colour." : undefined}
          />
          <SelectField
            label="From"
            value={look.side}
            onValue={(side) => set({ side: side as Look["side"] })}
            options={SIDES}
          />
          <div className="grid grid-cols-2 gap-2">
            <NumberField
              label="Turned"
              unit="°"
              least={-180}
              most={180}
              step={15}
              value={look.around}
              onValue={(around) => set({ around: Math.round(around ?? 0) })}
            />
            <NumberField
              label="Raised"
              unit="°"
              least={-90}
              most={90}
              step={15}
              value={look.above}
              onValue={(above) => set({ above: Math.round(above ?? 0) })}
            />
          </div>
          <SelectField
            label="Ground"
            value={look.ground ?? ""}
            onValue={(ground) => set({ ground: ground || null })}
            options={GROUNDS}
          />
          <SelectField
            label="Pixels across"
            value={String(look.width)}
            onValue={(width) => set({ width: Number(width) })}
            options={WIDTHS.map((w) => [String(w), String(w)] as const)}
          />
          <Check label="shadow on the table" checked={look.shadow} onChecked={(shadow) => set({ shadow })} />
        </div>
      </div>
    </Dialog>
  );
}

/** The steps that add a part, each by its key. */
function stepsOf(design: Design): [string, string][] {
  const names = new Map(design.parts.map((p) => [p.key, p.name]));
  return (design.assembly.steps ?? []).flatMap((s, i): [string, string][] =>
    s.part && s.on ? [[s.key, `step ${i + 1}: ${names.get(s.part) ?? "a part"}`]] : [],
  );
}

/** The picture once it is painted, and its file. */
function Painted({ design, look }: { design: Design; look: Look }) {
  const queries = useQueryClient();
  const key = ["picture", design.id, design.revision, look];
  const { settled, settling, problem } = useRest(key, () =>
    answer<Schemas["SettlingOut"]>(
      api.POST("/api/bench/picture/{design_id}", {
        params: { path: { design_id: design.id } },
        body: look,
      }),
    ),
  );
  const [failed, setFailed] = useState<string | null>(null);
  const url = pictureOf(design.id, look);
  return (
    <div className="flex flex-col gap-2">
      <div className="grid aspect-square place-items-center overflow-hidden rounded border border-line bg-sunk">
        {settled && failed !== url ? (
          <img
            key={url}
            src={url}
            alt={`${design.name}, painted`}
            className="size-full object-contain"
            onError={() => setFailed(url)}
          />
        ) : (
          <p role="status" className="p-4 text-center text-soft">
            {failed === url || problem
              ? "This picture cannot be painted: look whether every part of the figure settles."
              : settling
                ? "Painting …"
                : "Waiting …"}
          </p>
        )}
      </div>
      {failed === url ? (
        <Button
          onClick={() => {
            setFailed(null);
            queries.invalidateQueries({ queryKey: ["settling", ...key] });
          }}
        >
          Try again
        </Button>
      ) : (
        <Button asChild weight="main" className={settled ? "" : "pointer-events-none opacity-55"}>
          <a href={url} download={`${design.name}.png`} aria-disabled={!settled}>
            <Download size={16} aria-hidden /> Save as PNG
          </a>
        </Button>
      )}
    </div>
  );
}
