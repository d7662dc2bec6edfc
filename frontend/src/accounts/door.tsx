/** The way in: sign in, or make an account. */
import { useState } from "react";
import { Button } from "../ui/controls";
import { FormError, FormText, useSentForm } from "../ui/form";
import { useAccount } from "./session";

const SPIRAL =
  "M60 62c0-5 8-5 8 2 0 9-16 9-16-3 0-14 24-14 24 4 0 19-32 19-32-5 0-24 40-24 40 6 0 29-48 29-48-7 0-34 56-34 56 8";

export function Door({ demo }: { demo: boolean }) {
  return (
    <main className="grid flex-1 place-items-center p-6">
      <div className="grid w-full max-w-4xl items-center gap-10 md:grid-cols-2">
        <div>
          <svg viewBox="20 20 80 80" className="mb-2 size-28" aria-hidden="true">
            <path d={SPIRAL} fill="none" stroke="var(--ink)" strokeWidth="3.4" strokeLinecap="round" />
            <circle cx="92" cy="66" r="4.4" fill="var(--madder)" />
          </svg>
          <h1 className="text-5xl">Spirrel</h1>
          <p className="mt-3 max-w-sm text-lg">
            From a shape to written rounds that add up: counts, sizes, yarn and a pattern that a tester can
            follow.
          </p>
        </div>
        <WayIn demo={demo} />
      </div>
    </main>
  );
}

function WayIn({ demo }: { demo: boolean }) {
  const [making, setMaking] = useState(false);
  const account = useAccount();
  const { form, refused } = useSentForm({ username: "", password: "", studio: "" });
  const send = form.handleSubmit(({ username, password, studio }) =>
    account.mutate(making ? { do: "up", username, password, studio } : { do: "in", username, password }, {
      onError: refused,
    }),
  );
  return (
    <form
      className="flex flex-col gap-4 rounded-lg border border-line bg-panel p-6"
      onSubmit={send}
      noValidate
    >
      <h2 className="text-2xl">{making ? "A studio of your own" : "Sign in"}</h2>
      {making && (
        <FormText
          form={form}
          name="studio"
          label="Studio"
          required="Give your studio a name."
          maxLength={80}
        />
      )}
      <FormText
        form={form}
        name="username"
        label="Name"
        required="Type your name."
        autoComplete="username"
        maxLength={150}
      />
      <FormText
        form={form}
        name="password"
        label="Password"
        required="Type your password."
        type="password"
        autoComplete={making ? "new-password" : "current-password"}
        hint={making ? "At least eight characters, no common word." : undefined}
      />
      <FormError form={form} />
      <Button weight="main" type="submit" disabled={account.isPending}>
        {making ? "Open the studio" : "Sign in"}
      </Button>
      <Button
        weight="quiet"
        onClick={() => {
          setMaking(!making);
          form.clearErrors();
        }}
      >
        {making ? "I have one already" : "Make a new studio"}
      </Button>
      {demo && !making && (
        <p className="text-sm text-soft">
          To look around: the demo studio is <strong className="text-ink">lanternwick</strong>, its password{" "}
          <strong className="text-ink">glow-by-night</strong>.
        </p>
      )}
    </form>
  );
}
