/** Her studio: preferences, password, where it is open, what it holds, leaving. */
import { Tabs } from "radix-ui";
import { Controller } from "react-hook-form";
import { TERMS } from "../design/terms";
import { Button, Check } from "../ui/controls";
import { FormError, FormSelect, FormText, useSentForm } from "../ui/form";
import { Dialog, useSay } from "../ui/overlays";
import { PasswordField } from "./password-field";
import { type Me, useAccount } from "./session";
import { Held, Leaving, OpenAt } from "./studio-state";

const TABS = [
  ["preferences", "Preferences"],
  ["password", "Password"],
  ["open", "Devices"],
  ["held", "Room left"],
  ["leaving", "Leaving"],
] as const;

export function AccountDialog({
  me,
  open,
  onOpen,
}: {
  me: Me;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  return (
    <Dialog open={open} onOpen={onOpen} title="Your studio" about={`Signed in as ${me.username}`}>
      <Tabs.Root defaultValue="preferences">
        <Tabs.List aria-label="Your studio" className="mb-4 flex flex-wrap gap-1 border-b border-line">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className="px-2 py-1 data-[state=active]:border-b-2 data-[state=active]:border-woad data-[state=active]:font-semibold"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="preferences">
          <Preferences me={me} />
        </Tabs.Content>
        <Tabs.Content value="password">
          <AnotherPassword />
          <WayBack me={me} />
        </Tabs.Content>
        <Tabs.Content value="open">
          <OpenAt />
        </Tabs.Content>
        <Tabs.Content value="held">
          <Held />
        </Tabs.Content>
        <Tabs.Content value="leaving">
          <Leaving />
        </Tabs.Content>
      </Tabs.Root>
    </Dialog>
  );
}

function Preferences({ me }: { me: Me }) {
  const account = useAccount();
  const say = useSay();
  const { form, refused } = useSentForm({
    studio: me.studio,
    terms: me.terms,
    left_handed: me.left_handed,
  });
  const send = form.handleSubmit((value) =>
    account.mutate({ do: "preferences", ...value }, { onSuccess: () => say("Saved."), onError: refused }),
  );
  return (
    <form className="flex flex-col gap-3" onSubmit={send} noValidate>
      <FormText form={form} name="studio" label="Studio" required="Give your studio a name." maxLength={80} />
      <FormSelect form={form} name="terms" label="New designs are written in" options={TERMS} />
      <Controller
        control={form.control}
        name="left_handed"
        render={({ field }) => (
          <Check label="I crochet left-handed" checked={field.value} onChecked={field.onChange} />
        )}
      />
      <FormError form={form} />
      <Button type="submit" weight="main" className="self-start">
        Save
      </Button>
    </form>
  );
}

function AnotherPassword() {
  const account = useAccount();
  const say = useSay();
  const { form, refused } = useSentForm({ present: "", next: "" });
  const send = form.handleSubmit((value) =>
    account.mutate(
      { do: "password", ...value },
      {
        onSuccess: () => {
          say("The password is changed.");
          form.reset();
        },
        onError: refused,
      },
    ),
  );
  return (
    <form className="flex flex-col gap-3" onSubmit={send} noValidate>
      <PasswordField form={form} name="present" label="Present password" />
      <PasswordField form={form} name="next" label="New password" chosen />
      <FormError form={form} />
      <Button type="submit" className="self-start">
        Change it
      </Button>
    </form>
  );
}

/** Where a letter goes when she forgets her password. */
function WayBack({ me }: { me: Me }) {
  const account = useAccount();
  const say = useSay();
  const { form, refused } = useSentForm({ address: me.address, present: "" });
  const send = form.handleSubmit((value) =>
    account.mutate(
      { do: "address", ...value },
      {
        onSuccess: () => {
          say(value.address ? "The way back in goes there." : "Nothing is sent anywhere.");
          form.resetField("present");
        },
        onError: refused,
      },
    ),
  );
  return (
    <form className="mt-6 flex flex-col gap-3 border-t border-line pt-4" onSubmit={send} noValidate>
      <h3 className="text-lg">If you forget it</h3>
      <FormText
        form={form}
        name="address"
        label="Address of mail"
        type="email"
        autoComplete="email"
        maxLength={254}
        hint="A letter with a way back in goes there, and nothing else. Empty for none."
      />
      <PasswordField form={form} name="present" label="Your password" />
      <FormError form={form} />
      <Button type="submit" className="self-start">
        Keep the address
      </Button>
    </form>
  );
}
