/** A commission: for whom, until when, what it costs from hours and yarn, and what was agreed. */
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { answer, api, type Schemas } from "../api/client";
import { type Design, newKey } from "../design/design";
import { Button, Check, Field, IconButton, inputClass, NumberField, Panel, TextField } from "../ui/controls";
import { rounded } from "../ui/units";

type Commissioned = NonNullable<Design["brief"]["commission"]>;
type Agreed = NonNullable<Commissioned["agreed"]>[number];

const FRESH: Commissioned = {
  client: "",
  until: null,
  hour: 0,
  yarn_100g: 0,
  extra: 0,
  currency: "",
  agreed: [],
};

const MOST_MONEY = 1_000_000;

export function Commission({
  design,
  value,
  saved,
  onValue,
}: {
  design: Design;
  value: Commissioned | null;
  saved: boolean;
  onValue: (value: Commissioned | null) => void;
}) {
  return (
    <Panel title="Commission">
      <Check
        label="It is made for a client"
        checked={value !== null}
        onChecked={(on) => onValue(on ? FRESH : null)}
      />
      {value && (
        <Facts design={design} value={value} saved={saved} set={(part) => onValue({ ...value, ...part })} />
      )}
    </Panel>
  );
}

type Facts = {
  design: Design;
  value: Commissioned;
  saved: boolean;
  set: (part: Partial<Commissioned>) => void;
};

function Facts({ design, value, saved, set }: Facts) {
  return (
    <>
      <div className="mt-2 grid grid-cols-2 gap-3">
        <TextField
          label="For whom"
          value={value.client ?? ""}
          maxLength={120}
          onChange={(e) => set({ client: e.target.value })}
        />
        <Field label="Until">
          {(ids) => (
            <input
              {...ids}
              type="date"
              className={inputClass}
              value={value.until ?? ""}
              onChange={(e) => set({ until: e.target.value || null })}
            />
          )}
        </Field>
        <Amount label="An hour of work" value={value.hour} onValue={(hour) => set({ hour })} />
        <Amount label="100 g of yarn" value={value.yarn_100g} onValue={(yarn_100g) => set({ yarn_100g })} />
        <Amount label="All else" value={value.extra} onValue={(extra) => set({ extra })} />
        <TextField
          label="Currency"
          value={value.currency ?? ""}
          maxLength={8}
          onChange={(e) => set({ currency: e.target.value })}
        />
      </div>
      <Price design={design} value={value} saved={saved} />
      <AgreedList agreed={value.agreed ?? []} onAgreed={(agreed) => set({ agreed })} />
      <p className="mt-2 text-sm text-soft">
        This stays here: no booklet, file or copy of the design carries it.
      </p>
    </>
  );
}

function Amount({
  label,
  value,
  onValue,
}: {
  label: string;
  value: number | undefined;
  onValue: (value: number) => void;
}) {
  return (
    <NumberField
      label={label}
      least={0}
      most={MOST_MONEY}
      step={0.5}
      value={value ?? 0}
      onValue={(amount) => onValue(amount ?? 0)}
    />
  );
}

/** What it costs by its rounds. saved: tells one state of the brief that the studio knows from the next. */
function Price({ design, value, saved }: { design: Design; value: Commissioned; saved: boolean }) {
  const found = useQuery({
    queryKey: ["figure", design.id, "price", design.revision],
    enabled: saved,
    placeholderData: (before) => before,
    queryFn: () =>
      answer<Schemas["PriceNow"]>(
        api.GET("/api/designs/{design_id}/price", { params: { path: { design_id: design.id } } }),
      ),
  });
  if (!found.data) return null;
  const { price, hours, grams, unknown } = found.data;
  if (!price || !hours)
    return <p className="mt-2 text-sm text-soft">The price is worked out once the parts have rounds.</p>;
  const money = (v: number) => `${rounded(v, 0)} ${value.currency ?? ""}`.trim();
  return (
    <p className="mt-3" role="status" data-testid="price">
      ≈ <strong className="font-semibold">{money(price.value)}</strong> (from {money(price.low)} to{" "}
      {money(price.high)}): {rounded(hours.value, 1)} h of work, {rounded(grams?.value ?? 0, 0)} g of yarn
      {unknown.length > 0 && `; without ${unknown.join(", ")}, whose weight is not known`}. An estimate from
      the stitches.
    </p>
  );
}

function AgreedList({
  agreed,
  onAgreed,
}: {
  agreed: readonly Agreed[];
  onAgreed: (agreed: Agreed[]) => void;
}) {
  const today = () => new Date().toLocaleDateString("sv-SE");
  const set = (key: string, part: Partial<Agreed>) =>
    onAgreed(agreed.map((a) => (a.key === key ? { ...a, ...part } : a)));
  return (
    <fieldset className="mt-3">
      <legend className="font-semibold">Agreed</legend>
      {agreed.map((a, i) => (
        <div key={a.key} className="mb-2 flex items-end gap-2">
          <Field label={`On ${i + 1}`}>
            {(ids) => (
              <input
                {...ids}
                type="date"
                className={inputClass}
                value={a.on}
                onChange={(e) => e.target.value && set(a.key, { on: e.target.value })}
              />
            )}
          </Field>
          <TextField
            label={`What ${i + 1}`}
            className="min-w-0 flex-1"
            value={a.text}
            maxLength={500}
            onChange={(e) => set(a.key, { text: e.target.value })}
          />
          <IconButton
            label={`Remove agreement ${i + 1}`}
            onClick={() => onAgreed(agreed.filter((b) => b !== a))}
          >
            <X size={16} />
          </IconButton>
        </div>
      ))}
      <Button onClick={() => onAgreed([...agreed, { key: newKey(), on: today(), text: "" }])}>
        Note what was agreed
      </Button>
    </fieldset>
  );
}
