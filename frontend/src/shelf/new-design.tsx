/** A design from nothing, or from the file of one. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, postFile, type Schemas, sentence } from "../api/client";
import { MOST_NAME } from "../design/head";
import { FileButton } from "../ui/file-button";
import { FormEnd, FormError, FormText, useSentForm } from "../ui/form";
import { Dialog, useSay } from "../ui/overlays";

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
  const say = useSay();
  const show = useOpen("rounds");
  const bring = useMutation({
    mutationFn: (file: File) => postFile<Schemas["DesignOut"]>("/api/designs/from-file", file),
    onSuccess: (made) => {
      say(`${made.name} is on the shelf, a design of its own.`);
      show(made);
    },
    onError: (error) => say(sentence(error), true),
  });
  return (
    <FileButton
      label="The file of a design, or a written pattern"
      accept=".json,.txt,.md,.csv,application/json,text/plain,text/markdown,text/csv"
      busy={bring.isPending ? "Bringing it in …" : null}
      onFile={bring.mutate}
    >
      Bring in a design
    </FileButton>
  );
}
