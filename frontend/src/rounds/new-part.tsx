/** A part that is written by hand. */
import { type Design, useAct } from "../design/design";
import { MOST_NAME } from "../design/head";
import { FormEnd, FormError, FormText, useSentForm } from "../ui/form";
import { Dialog } from "../ui/overlays";

export function NewPart({
  design,
  open,
  onOpen,
  onMade,
}: {
  design: Design;
  open: boolean;
  onOpen: (open: boolean) => void;
  onMade: (key: string) => void;
}) {
  const { form, refused } = useSentForm({ name: "" });
  const act = useAct(design.id, () => true);
  const add = form.handleSubmit(({ name }) =>
    act.mutate(
      {
        do: "add-part",
        name: name.trim(),
        make: 1,
        colour: null,
        text: "R1: 6 sc in ring [6]\n",
        recipe: null,
      },
      {
        onSuccess: (made) => {
          onOpen(false);
          form.reset();
          onMade(made.parts.at(-1)?.key ?? "");
        },
        onError: refused,
      },
    ),
  );
  return (
    <Dialog open={open} onOpen={onOpen} title="A part written by hand">
      <form className="flex flex-col gap-3" noValidate onSubmit={add}>
        <FormText
          form={form}
          name="name"
          label="Call it"
          required="Give it a name."
          maxLength={MOST_NAME}
          placeholder="Tail"
        />
        <FormError form={form} />
        <FormEnd onCancel={() => onOpen(false)} pending={act.isPending}>
          Add it
        </FormEnd>
      </form>
    </Dialog>
  );
}
