/** Typing in a yarn, and the measures of a sample. */
import { useState } from "react";
import { sentence } from "../api/client";
import { Button, Check, Field, NumberField, SelectField, TextField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { type Basket, type SampleIn, useChangeBasket, type Yarn, type YarnIn } from "./basket";

const FRESH: YarnIn = {
  name: "",
  colour: "#7a9a6b",
  weight: 3,
  wraps: null,
  plush: false,
  skein_m: null,
  skein_g: null,
};

export function YarnDialog({
  yarn,
  basket,
  open,
  onOpen,
}: {
  yarn: Yarn | null;
  basket: Basket;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  const [value, setValue] = useState<YarnIn>(yarn ?? FRESH);
  const change = useChangeBasket();
  const set = (part: Partial<YarnIn>) => setValue({ ...value, ...part });
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title={yarn ? yarn.name : "A yarn"}
      about="Name it as your rounds will: “Change to Oat”."
    >
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          const { name, colour, weight, wraps, plush, skein_m, skein_g } = value;
          const plain = { name, colour, weight, wraps, plush, skein_m, skein_g };
          change.mutate(yarn ? { do: "change", id: yarn.id, yarn: plain } : { do: "add", yarn: plain }, {
            onSuccess: () => onOpen(false),
          });
        }}
      >
        <TextField
          label="Name"
          required
          maxLength={39}
          value={value.name}
          onChange={(e) => set({ name: e.target.value })}
        />
        <Field label="Colour">
          {(ids) => (
            <input
              type="color"
              className="h-9 w-full rounded-md border border-strong"
              {...ids}
              value={value.colour}
              onChange={(e) => set({ colour: e.target.value })}
            />
          )}
        </Field>
        <SelectField
          label="Weight class"
          value={String(value.weight)}
          onValue={(w) => set({ weight: Number(w) })}
          options={basket.classes.map((c) => [String(c.number), `${c.number} ${c.name}`] as const)}
        />
        <NumberField
          label="Wraps"
          unit="per inch"
          optional
          least={0.5}
          most={100}
          value={value.wraps ?? null}
          onValue={(wraps) => set({ wraps })}
          hint="Counted around a ruler: surer than the class."
        />
        <NumberField
          label="Skein"
          unit="m"
          optional
          least={1}
          most={100000}
          value={value.skein_m ?? null}
          onValue={(skein_m) => set({ skein_m })}
        />
        <NumberField
          label="Skein"
          unit="g"
          optional
          least={1}
          most={100000}
          value={value.skein_g ?? null}
          onValue={(skein_g) => set({ skein_g })}
        />
        <Check label="Plush or fuzzy" checked={value.plush ?? false} onChecked={(plush) => set({ plush })} />
        {change.error && (
          <p role="alert" className="col-span-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
            {sentence(change.error)}
          </p>
        )}
        <Button
          type="submit"
          weight="main"
          className="col-span-2 justify-self-end"
          disabled={change.isPending}
        >
          {yarn ? "Save" : "Put it in the basket"}
        </Button>
      </form>
    </Dialog>
  );
}

export function SampleDialog({
  basket,
  open,
  onOpen,
}: {
  basket: Basket;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  const [value, setValue] = useState<SampleIn>({
    yarn_id: basket.yarns[0]?.id ?? 0,
    hook_mm: 3,
    strands: 1,
    kind: "stuffed",
    stitches: 36,
    across_mm: 180,
    rounds: 10,
    up_mm: 48,
    drift_stitches: null,
    drift_rounds: null,
    yarn_per_stitch_mm: null,
  });
  const change = useChangeBasket();
  const set = (part: Partial<SampleIn>) => setValue({ ...value, ...part });
  const stuffed = value.kind === "stuffed";
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="A sample"
      about="A stuffed piece you already have is the best swatch."
    >
      <form
        className="grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate({ do: "sample", sample: value }, { onSuccess: () => onOpen(false) });
        }}
      >
        <SelectField
          label="Yarn"
          value={String(value.yarn_id)}
          onValue={(id) => set({ yarn_id: Number(id) })}
          options={basket.yarns.map((y) => [String(y.id), y.name] as const)}
        />
        <SelectField
          label="Hook"
          value={String(value.hook_mm)}
          onValue={(mm) => set({ hook_mm: Number(mm) })}
          options={basket.hooks.map((h) => [String(h.mm), h.name] as const)}
        />
        <SelectField
          label="Measured on"
          value={value.kind}
          onValue={(kind) => set({ kind })}
          options={[
            ["stuffed", "a stuffed piece"],
            ["flat", "a flat swatch"],
          ]}
        />
        <NumberField
          label="Strands"
          least={1}
          most={6}
          value={value.strands ?? 1}
          onValue={(n) => set({ strands: n ?? 1 })}
        />
        <NumberField
          label={stuffed ? "Stitches in the round" : "Stitches counted"}
          least={1}
          most={10000}
          value={value.stitches}
          onValue={(n) => n && set({ stitches: n })}
        />
        <NumberField
          label={stuffed ? "Girth there" : "Width of them"}
          unit="mm"
          least={1}
          most={5000}
          value={value.across_mm}
          onValue={(n) => n && set({ across_mm: n })}
        />
        <NumberField
          label="Rounds counted"
          least={1}
          most={10000}
          value={value.rounds}
          onValue={(n) => n && set({ rounds: n })}
        />
        <NumberField
          label={stuffed ? "Length of a straight stretch" : "Height of them"}
          unit="mm"
          least={1}
          most={5000}
          value={value.up_mm}
          onValue={(n) => n && set({ up_mm: n })}
        />
        <NumberField
          label="Thread drifted"
          unit="stitches"
          optional
          least={-2000}
          most={2000}
          value={value.drift_stitches ?? null}
          onValue={(n) => set({ drift_stitches: n })}
          hint="A thread laid straight up shows the lean."
        />
        <NumberField
          label="over"
          unit="rounds"
          optional
          least={1}
          most={1000}
          value={value.drift_rounds ?? null}
          onValue={(n) => set({ drift_rounds: n })}
        />
        <NumberField
          label="Yarn in one stitch"
          unit="mm"
          optional
          least={1}
          most={2000}
          value={value.yarn_per_stitch_mm ?? null}
          onValue={(n) => set({ yarn_per_stitch_mm: n })}
          hint="Unravel ten and divide."
        />
        {change.error && (
          <p role="alert" className="col-span-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
            {sentence(change.error)}
          </p>
        )}
        <Button
          type="submit"
          weight="main"
          className="col-span-2 justify-self-end"
          disabled={change.isPending}
        >
          Keep the sample
        </Button>
      </form>
    </Dialog>
  );
}
