/** A design from nothing, or from the file of one. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { BringInDesign } from "../bringing/bring-in";
import { MOST_NAME } from "../design/head";
import { Button } from "../ui/controls";
import { FormEnd, FormError, FormText, useSentForm } from "../ui/form";
import { Dialog } from "../ui/overlays";

/** Open what was just made. */
function useOpen(stop: string) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return (made: Schemas["DesignOut"]) => {
    queries.invalidateQueries({ queryKey: ["shelf"] });
    navigate(`/designs/${made.id}/${stop}`);
  };
}

export function NewDesign({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  const { form, refused } = useSentForm({ name: "" });
  const show = useOpen("shapes");
  const create = useMutation({
    mutationFn: (name: string) => answer<Schemas["DesignOut"]>(api.POST("/api/designs", { body: { name } })),
    onSuccess: (made) => {
      onOpen(false);
      form.reset();
      show(made);
    },
    onError: refused,
  });
  return (
    <Dialog open={open} onOpen={onOpen} title="A new design" about="It can be renamed at any time.">
      <form
        className="flex flex-col gap-4"
        noValidate
        onSubmit={form.handleSubmit(({ name }) => create.mutate(name.trim()))}
      >
        <FormText
          form={form}
          name="name"
          label="Name"
          required="Give it a name."
          maxLength={MOST_NAME}
          placeholder="Moth in a nightcap"
        />
        <FormError form={form} />
        <FormEnd onCancel={() => onOpen(false)} pending={create.isPending}>
          Start it
        </FormEnd>
      </form>
    </Dialog>
  );
}

export function DesignFromFile() {
  const [open, setOpen] = useState(false);
  const show = useOpen("rounds");
  return (
    <>
      <Button onClick={() => setOpen(true)}>Bring in a design</Button>
      <BringInDesign open={open} onOpen={setOpen} onMade={show} />
    </>
  );
}
