/** What is said of a kept piece, said otherwise: whose it is, where it belongs, on what terms. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { Button, Check, SelectField, TextField } from "../ui/controls";
import { Dialog, useSay } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { type Piece, SLOTS } from "./pieces";
import { TermsFields, USUAL } from "./terms-fields";

type Said = Schemas["PieceTerms"];

export function Describe({ piece, onClose }: { piece: Piece; onClose: () => void }) {
  const queries = useQueryClient();
  const say = useSay();
  const { title, slot, version, designer, own, tags, permissions } = piece;
  const [said, setSaid] = useState<Said>({ title, slot, version, designer, own, tags, permissions });
  const [tagLine, setTagLine] = useState(tags.join(", "));
  const set = (more: Partial<Said>) => setSaid({ ...said, ...more });
  const keep = useMutation({
    mutationFn: () =>
      answer<Piece>(
        api.PUT("/api/pieces/{piece_id}", {
          params: { path: { piece_id: piece.id } },
          body: { ...said, tags: tagLine.split(",").flatMap((t) => t.trim() || []) },
        }),
      ),
    onSuccess: (now) => {
      queries.invalidateQueries({ queryKey: ["pieces"] });
      say(`${now.title}: what is said of it is changed.`);
      onClose();
    },
  });
  return (
    <Dialog
      open
      onOpen={(open) => !open && onClose()}
      title={`About ${piece.title}`}
      about="Its rounds stay as they are. Figures that it was put into keep the terms that it had then."
    >
      <form
        className="flex flex-col gap-3"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          keep.mutate();
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label="Title"
            value={said.title}
            maxLength={60}
            onChange={(e) => set({ title: e.target.value })}
          />
          <SelectField
            label="Where it belongs"
            value={said.slot}
            onValue={(to) => set({ slot: to })}
            options={SLOTS}
          />
          <TextField
            label="Designer"
            value={said.designer}
            maxLength={120}
            disabled={said.own}
            onChange={(e) => set({ designer: e.target.value })}
          />
          <TextField
            label="Version"
            value={said.version}
            maxLength={40}
            onChange={(e) => set({ version: e.target.value })}
          />
        </div>
        <Check
          label="It is my own"
          checked={said.own}
          onChecked={(mine) => set({ own: mine, designer: mine ? "" : designer })}
        />
        <TextField
          label="Tags"
          hint="with commas between"
          value={tagLine}
          onChange={(e) => setTagLine(e.target.value)}
        />
        <TermsFields value={{ ...USUAL, ...said.permissions }} onValue={(now) => set({ permissions: now })} />
        <Refused error={keep.error} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" weight="main" disabled={keep.isPending || !said.title.trim()}>
            Keep it so
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
