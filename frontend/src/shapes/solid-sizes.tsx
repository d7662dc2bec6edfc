/** A solid's sizes. */
import { Check, NumberField } from "../ui/controls";
import type { SolidForm } from "./recipe";

export function SolidSizes({ solid, onSolid }: { solid: SolidForm; onSolid: (solid: SolidForm) => void }) {
  const set = (part: Partial<SolidForm>) => onSolid({ ...solid, ...part });
  const ball = solid.kind === "sphere";
  return (
    <div className="mt-2 grid grid-cols-2 gap-2">
      <NumberField
        label="Width"
        unit="mm"
        least={5}
        most={600}
        value={solid.width_mm}
        onValue={(n) => n && set({ width_mm: n, ...(ball ? { height_mm: n } : {}) })}
      />
      {!ball && (
        <NumberField
          label="Height"
          unit="mm"
          least={5}
          most={600}
          value={solid.height_mm}
          onValue={(n) => n && set({ height_mm: n })}
        />
      )}
      {solid.kind === "egg" && (
        <NumberField
          label="Pointed"
          unit="%"
          least={0}
          most={50}
          value={(solid.point ?? 0.2) * 100}
          onValue={(n) => set({ point: (n ?? 20) / 100 })}
        />
      )}
      <div className="col-span-2">
        <Check label="Open at the end" checked={solid.open ?? false} onChecked={(open) => set({ open })} />
      </div>
      {solid.open && ["sphere", "ellipsoid", "egg", "drop"].includes(solid.kind) && (
        <NumberField
          className="col-span-2"
          label="Opening"
          unit="mm"
          optional
          least={5}
          most={600}
          value={solid.opening_mm ?? null}
          onValue={(opening_mm) => set({ opening_mm })}
          hint="Empty leaves 40 % of the width, which carries a head."
        />
      )}
    </div>
  );
}
