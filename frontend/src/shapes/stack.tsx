/** Solids stacked into one piece: which, how large, how wide their necks. */
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { Button, IconButton, NumberField, SelectField } from "../ui/controls";
import { moved } from "../ui/moved";
import { NEXT_SOLID, type Solid, type Stack } from "./recipe";
import { KINDS, type Kind } from "./silhouettes";

const NAMES = KINDS.map((k) => [k.kind, k.name] as const);

export function StackFields({ form, onForm }: { form: Stack; onForm: (form: Stack) => void }) {
  const set = (at: number, part: Partial<Solid>) =>
    onForm({ ...form, solids: form.solids.map((s, i) => (i === at ? square({ ...s, ...part }) : s)) });
  return (
    <div className="mt-2 flex flex-col gap-2">
      <ol className="flex flex-col-reverse gap-2" aria-label="Stack, the first at the foot">
        {form.solids.map((solid, i) => (
          <li key={i} className="rounded-md border border-line p-2">
            <div className="grid grid-cols-[1fr_auto_auto_auto] items-end gap-1">
              <SelectField
                label={i === 0 ? "At the foot" : `Above it (${i + 1})`}
                value={solid.kind}
                onValue={(kind) => set(i, { kind: kind as Kind })}
                options={NAMES}
              />
              <IconButton
                label={`Move ${i + 1} up`}
                disabled={i === form.solids.length - 1}
                onClick={() => onForm({ ...form, solids: moved(form.solids, i, i + 1) })}
              >
                <ArrowUp size={16} />
              </IconButton>
              <IconButton
                label={`Move ${i + 1} down`}
                disabled={i === 0}
                onClick={() => onForm({ ...form, solids: moved(form.solids, i, i - 1) })}
              >
                <ArrowDown size={16} />
              </IconButton>
              <IconButton
                label={`Take ${i + 1} away`}
                disabled={form.solids.length <= 2}
                onClick={() => onForm({ ...form, solids: form.solids.filter((_, k) => k !== i) })}
              >
                <X size={16} />
              </IconButton>
            </div>
            <div className="mt-1 grid grid-cols-2 gap-2">
              <NumberField
                label="Width"
                unit="mm"
                least={5}
                most={600}
                value={solid.width_mm}
                onValue={(width_mm) => width_mm && set(i, { width_mm })}
              />
              <NumberField
                label="Height"
                unit="mm"
                least={5}
                most={600}
                disabled={solid.kind === "sphere"}
                value={solid.height_mm}
                onValue={(height_mm) => height_mm && set(i, { height_mm })}
              />
            </div>
          </li>
        ))}
      </ol>
      <div className="grid grid-cols-2 items-end gap-2">
        <NumberField
          label="Necks"
          unit="%"
          least={20}
          most={95}
          value={Math.round((form.neck ?? 0.6) * 100)}
          onValue={(n) => n && onForm({ ...form, neck: n / 100 })}
          hint="of the narrower solid; 40 carries a head"
        />
        <Button
          disabled={form.solids.length >= 8}
          onClick={() => onForm({ ...form, solids: [...form.solids, NEXT_SOLID] })}
        >
          One more on top
        </Button>
      </div>
    </div>
  );
}

/** A ball is as tall as it is wide. */
function square(solid: Solid): Solid {
  return solid.kind === "sphere" ? { ...solid, height_mm: solid.width_mm } : solid;
}
