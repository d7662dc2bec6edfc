/** Parts of a design kept as a piece, with its terms. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import type { Design } from "../design/design";
import { type Piece, SLOTS, type Slot } from "../pieces/pieces";
import { TermsFields, USUAL } from "../pieces/terms-fields";
import { Button, Check, SelectField, TextField } from "../ui/controls";
import { Dialog, useSay } from "../ui/overlays";
import { Refused } from "../ui/refused";

export function KeepPiece({ design, onClose }: { design: Design; onClose: () => void }) {
  const queries = useQueryClient();
  const say = useSay();
  const [parts, setParts] = useState<string[]>(design.parts.slice(0, 1).map((p) => p.key));
  const [title, setTitle] = useState(design.parts[0]?.name ?? "");
  const [slot, setSlot] = useState<Slot>("other");
  const [designer, setDesigner] = useState("");
  const [version, setVersion] = useState("1.0");
  const [tags, setTags] = useState("");
  const [permissions, setPermissions] = useState(USUAL);
  const keep = useMutation({
    mutationFn: () =>
      answer<Piece>(
        api.POST("/api/pieces", {
          body: {
            design: design.id,
            parts,
            main: parts[0] ?? "",
            title,
            slot,
            designer,
            version,
            tags: tags.split(",").flatMap((t) => t.trim() || []),
            permissions,
          },
        }),
      ),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["pieces"] });
      say(`${made.title} is kept with the pieces.`);
      onClose();
    },
  });
  const put = (key: string, on: boolean) => setParts(on ? [...parts, key] : parts.filter((k) => k !== key));
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      title="Keep parts as a piece"
      about="They are kept as they are now, with their joins, eyes and marks. The design stays as it is."
    >
      <form
        className="flex flex-col gap-3"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1 rounded border border-line p-3">
          <legend className="px-1">Which parts; the first chosen is the one it is used by</legend>
          {design.parts.map((p) => (
            <Check
              key={p.key}
              label={p.name}
              checked={parts.includes(p.key)}
              onChecked={(on) => put(p.key, on)}
            />
          ))}
        </fieldset>
        <div className="grid grid-cols-2 gap-3">
          <TextField label="Title" value={title} maxLength={60} onChange={(e) => setTitle(e.target.value)} />
          <SelectField label="Where it belongs" value={slot} onValue={setSlot} options={SLOTS} />
          <TextField
            label="Designer, when it is not yours"
            value={designer}
            maxLength={120}
            onChange={(e) => setDesigner(e.target.value)}
          />
          <TextField
            label="Version"
            value={version}
            maxLength={40}
            onChange={(e) => setVersion(e.target.value)}
          />
        </div>
        <TextField
          label="Tags"
          hint="with commas between"
          value={tags}
          onChange={(e) => setTags(e.target.value)}
        />
        <TermsFields value={permissions} onValue={setPermissions} />
        <Refused error={keep.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" weight="main" disabled={keep.isPending || !parts.length || !title.trim()}>
            Keep it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
