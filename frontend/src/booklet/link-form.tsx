/** For whom a link is made, and for how long it holds. */
import { useState } from "react";
import { Button, NumberField, TextField } from "../ui/controls";

export function LinkForm({
  label,
  usual,
  needsName = false,
  busy,
  onMake,
}: {
  /** What the name is asked for with. */
  label: string;
  /** Days that it mostly holds. */
  usual: number;
  needsName?: boolean;
  busy: boolean;
  onMake: (name: string, days: number) => void;
}) {
  const [name, setName] = useState("");
  const [days, setDays] = useState<number | null>(usual);
  const ready = !busy && (!needsName || name.trim() !== "");
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (!ready) return;
        onMake(name, days ?? usual);
        setName("");
      }}
    >
      <TextField
        label={label}
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.target.value)}
        className="min-w-32 flex-1"
      />
      <NumberField
        label="Holds"
        unit="days"
        least={1}
        most={400}
        step={1}
        value={days}
        onValue={setDays}
        className="w-28"
      />
      <Button type="submit" disabled={!ready}>
        Make a link
      </Button>
    </form>
  );
}
