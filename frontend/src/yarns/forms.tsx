/** Typing in a yarn, and the measures of a swatch. */
import { Controller, type UseFormReturn } from "react-hook-form";
import { Check, Field } from "../ui/controls";
import { FormEnd, FormError, FormNumber, FormSelect, FormText, useSentForm } from "../ui/form";
import { Dialog } from "../ui/overlays";
import { type Basket, type SwatchIn, useChangeBasket, type Yarn, type YarnIn } from "./basket";

const FRESH: YarnIn = {
  name: "",
  colour: "#7a9a6b",
  weight: 3,
  wraps: null,
  plush: false,
  skein_m: null,
  skein_g: null,
  left_g: null,
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
  const { form, refused } = useSentForm<YarnIn>(yarn ?? FRESH);
  const change = useChangeBasket();
  const send = form.handleSubmit((value) => {
    const { name, colour, weight, wraps, plush, skein_m, skein_g, left_g } = value;
    const plain = { name: name.trim(), colour, weight, wraps, plush, skein_m, skein_g, left_g };
    change.mutate(yarn ? { do: "change", id: yarn.id, yarn: plain } : { do: "add", yarn: plain }, {
      onSuccess: () => onOpen(false),
      onError: refused,
    });
  });
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title={yarn ? yarn.name : "A yarn"}
      about="Name it as your rounds will: “Change to Oat”."
    >
      <form className="grid grid-cols-2 gap-3" onSubmit={send} noValidate>
        <FormText form={form} name="name" label="Name" required="A yarn has a name." maxLength={39} />
        <Field label="Colour">
          {(ids) => (
            <input
              type="color"
              className="h-9 w-full rounded-md border border-strong"
              {...ids}
              {...form.register("colour")}
            />
          )}
        </Field>
        <FormSelect
          form={form}
          name="weight"
          label="Weight class"
          read={Number}
          options={basket.classes.map((c) => [String(c.number), `${c.number} ${c.name}`] as const)}
        />
        <FormNumber
          form={form}
          name="wraps"
          label="Wraps"
          unit="per inch"
          least={0.5}
          most={100}
          hint="Counted around a ruler: surer than the class."
        />
        <FormNumber form={form} name="skein_m" label="Skein" unit="m" least={1} most={100000} />
        <FormNumber form={form} name="skein_g" label="Skein" unit="g" least={1} most={100000} />
        <FormNumber
          form={form}
          name="left_g"
          label="Left of it"
          unit="g"
          least={0}
          most={100000}
          hint="On the scale; sizes say whether it does."
        />
        <Controller
          control={form.control}
          name="plush"
          render={({ field }) => (
            <Check label="Plush or fuzzy" checked={field.value ?? false} onChecked={field.onChange} />
          )}
        />
        <FormError form={form} />
        <FormEnd onCancel={() => onOpen(false)} pending={change.isPending}>
          {yarn ? "Save" : "Put it in the basket"}
        </FormEnd>
      </form>
    </Dialog>
  );
}

/** What is measured stands empty until it is: nothing invented is ever kept. */
type Measured = Omit<SwatchIn, "stitches" | "across_mm" | "rounds" | "up_mm" | "hook_mm"> &
  Record<"stitches" | "across_mm" | "rounds" | "up_mm" | "hook_mm", number | null>;

const MEASURE = "Measure it first.";

export function SwatchDialog({
  basket,
  open,
  onOpen,
  chosen = {},
}: {
  basket: Basket;
  open: boolean;
  onOpen: (open: boolean) => void;
  /** Yarn, hook and strands of the figure it is made for. */
  chosen?: Partial<Pick<SwatchIn, "yarn_id" | "hook_mm" | "strands">>;
}) {
  const { form, refused } = useSentForm<Measured>({
    yarn_id: chosen.yarn_id ?? basket.yarns[0]?.id ?? 0,
    hook_mm: chosen.hook_mm ?? null,
    strands: chosen.strands ?? 1,
    kind: "stuffed",
    stitches: null,
    across_mm: null,
    rounds: null,
    up_mm: null,
    drift_stitches: null,
    drift_rounds: null,
    yarn_per_stitch_mm: null,
  });
  const change = useChangeBasket();
  const send = form.handleSubmit((value) =>
    change.mutate(
      { do: "swatch", swatch: value as SwatchIn },
      { onSuccess: () => onOpen(false), onError: refused },
    ),
  );
  return (
    <Dialog
      open={open}
      onOpen={onOpen}
      title="A swatch"
      about="A stuffed piece you already have is the best swatch."
    >
      <form className="grid grid-cols-2 gap-3" onSubmit={send} noValidate>
        <FormSelect
          form={form}
          name="yarn_id"
          label="Yarn"
          read={Number}
          options={basket.yarns.map((y) => [String(y.id), y.name] as const)}
        />
        <FormSelect
          form={form}
          name="hook_mm"
          label="Hook"
          read={(mm) => (mm ? Number(mm) : null)}
          options={[["", "choose it"] as const, ...basket.hooks.map((h) => [String(h.mm), h.name] as const)]}
        />
        <FormSelect
          form={form}
          name="kind"
          label="Measured on"
          options={[
            ["stuffed", "a stuffed piece"],
            ["flat", "a flat swatch"],
          ]}
        />
        <FormNumber form={form} name="strands" label="Strands" least={1} most={6} />
        <Counted form={form} />
        <FormError form={form} />
        <FormEnd onCancel={() => onOpen(false)} pending={change.isPending}>
          Keep the swatch
        </FormEnd>
      </form>
    </Dialog>
  );
}

/** What is counted and measured on the swatch; a stuffed piece is measured around. */
function Counted({ form }: { form: UseFormReturn<Measured> }) {
  const stuffed = form.watch("kind") === "stuffed";
  return (
    <>
      <FormNumber
        form={form}
        name="stitches"
        label={stuffed ? "Stitches in the round" : "Stitches counted"}
        required={MEASURE}
        least={1}
        most={10000}
      />
      <FormNumber
        form={form}
        name="across_mm"
        label={stuffed ? "Girth there" : "Width of them"}
        unit="mm"
        required={MEASURE}
        least={1}
        most={5000}
      />
      <FormNumber
        form={form}
        name="rounds"
        label="Rounds counted"
        required={MEASURE}
        least={1}
        most={10000}
      />
      <FormNumber
        form={form}
        name="up_mm"
        label={stuffed ? "Length of a straight stretch" : "Height of them"}
        unit="mm"
        required={MEASURE}
        least={1}
        most={5000}
      />
      <FormNumber
        form={form}
        name="drift_stitches"
        label="Thread drifted"
        unit="stitches"
        least={-2000}
        most={2000}
        hint="A thread laid straight up shows the lean."
      />
      <FormNumber form={form} name="drift_rounds" label="over" unit="rounds" least={1} most={1000} />
      <FormNumber
        form={form}
        name="yarn_per_stitch_mm"
        label="Yarn in one stitch"
        unit="mm"
        least={1}
        most={2000}
        hint="Unravel ten and divide."
      />
    </>
  );
}
