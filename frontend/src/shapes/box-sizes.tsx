/** The three sizes of a box. */
import { NumberField } from "../ui/controls";
import type { BoxForm } from "./recipe";

const SIZES = [
  ["width_mm", "Width (mm)"],
  ["depth_mm", "Depth (mm)"],
  ["height_mm", "Height (mm)"],
] as const;

export function BoxSizes({ form, onForm }: { form: BoxForm; onForm: (form: BoxForm) => void }) {
  return (
    <div className="mt-2 grid grid-cols-3 gap-2">
      {SIZES.map(([name, label]) => (
        <NumberField
          key={name}
          label={label}
          least={5}
          most={2000}
          value={form[name]}
          onValue={(mm) => mm && onForm({ ...form, [name]: mm })}
        />
      ))}
    </div>
  );
}
