/** A source as she notes it: what it is called, whose it is, on what terms. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import { type Design, useAct } from "../design/design";
import { type Permissions, TermsFields, USUAL } from "../pieces/terms-fields";
import { Button, Check, TextField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";

type Source = Schemas["SourceEntry"];

const NEW: Source = {
  title: "",
  designer: "",
  version: "",
  terms: "",
  permissions: null,
  parts: [],
  own: false,
};

export function NoteSource({
  design,
  noted,
  at,
  onClose,
}: {
  design: Design;
  noted: readonly Source[];
  /** Which of those noted; one more than there are for a new one. */
  at: number;
  onClose: () => void;
}) {
  const act = useAct(design.id, () => true);
  const [source, setSource] = useState<Source>(noted[at] ?? NEW);
  const set = (more: Partial<Source>) => setSource({ ...source, ...more });
  const write = (entry: Source | null) => {
    const others = noted.filter((_, n) => n !== at);
    const sources = entry ? [...noted.slice(0, at), entry, ...noted.slice(at + 1)] : others;
    act.mutate({ do: "sources", sources }, { onSuccess: onClose });
  };
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      title={at < noted.length ? `What is noted of ${noted[at]?.title}` : "Note a source"}
      about="A pattern, a piece or a picture that this figure was made from."
    >
      <form
        className="flex flex-col gap-3"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          write(source);
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label="What it is called"
            value={source.title}
            maxLength={120}
            onChange={(e) => set({ title: e.target.value })}
          />
          <TextField
            label="Whose it is"
            value={source.designer ?? ""}
            maxLength={120}
            onChange={(e) => set({ designer: e.target.value })}
          />
          <TextField
            label="Version"
            value={source.version ?? ""}
            maxLength={120}
            onChange={(e) => set({ version: e.target.value })}
          />
          <span className="self-end pb-2">
            <Check label="It is your own" checked={source.own ?? false} onChecked={(own) => set({ own })} />
          </span>
        </div>
        {!source.own && (
          <Check
            label="Its terms are known"
            checked={source.permissions !== null && source.permissions !== undefined}
            onChecked={(known) => set({ permissions: known ? USUAL : null })}
          />
        )}
        {!source.own && source.permissions && (
          <TermsFields
            value={source.permissions as Permissions}
            onValue={(permissions) => set({ permissions })}
          />
        )}
        <Refused error={act.error} />
        <div className="flex justify-end gap-2">
          {at < noted.length && (
            <Button weight="danger" className="mr-auto" onClick={() => write(null)}>
              Take it off
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" weight="main" disabled={act.isPending || !source.title.trim()}>
            Note it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
