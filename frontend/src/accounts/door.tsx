/** The way in: sign in, or make an account. */
import { useState } from "react";
import { Link, Route, Routes, useNavigate, useParams } from "react-router";
import { Button } from "../ui/controls";
import { FormError, FormText, useSentForm } from "../ui/form";
import { PasswordField } from "./password-field";
import { askForLetter, useAccount } from "./session";

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
        <Routes>
          <Route path="/new-password/:user/:token" element={<AnotherPassword />} />
          <Route path="*" element={<WayIn demo={demo} />} />
        </Routes>
      </div>
    </main>
  );
}

/** By the link of a letter. */
function AnotherPassword() {
  const { user = "", token = "" } = useParams();
  const account = useAccount();
  const go = useNavigate();
  const { form, refused } = useSentForm({ password: "" });
  const send = form.handleSubmit(({ password }) =>
    account.mutate(
      { do: "new-password", user, token, password },
      { onSuccess: () => go("/", { replace: true }), onError: refused },
    ),
  );
  return (
    <form className={panel} onSubmit={send} noValidate>
      <h2 className="text-2xl">Another password</h2>
      <PasswordField form={form} name="password" label="New password" chosen />
      <FormError form={form} />
      <Button weight="main" type="submit" disabled={account.isPending}>
        Set it, and come in
      </Button>
      <Button weight="quiet" asChild>
        <Link to="/">To the door</Link>
      </Button>
    </form>
  );
}

/** Has a letter sent with a way back in. */
function Forgotten({ name, onBack }: { name: string; onBack: () => void }) {
  const [sent, setSent] = useState(false);
  const { form, refused } = useSentForm({ username: name });
  const send = form.handleSubmit(({ username }) => askForLetter(username).then(() => setSent(true), refused));
  return (
    <form className={panel} onSubmit={send} noValidate>
      <h2 className="text-2xl">Forgotten password</h2>
      {sent ? (
        <p role="status">
          If there is a studio of that name with an address of mail, a letter is on its way: its link works
          once, for an hour. Without an address, ask whoever runs this Spirrel.
        </p>
      ) : (
        <>
          <FormText
            form={form}
            name="username"
            label="Name"
            required="Type your name."
            autoComplete="username"
            maxLength={150}
          />
          <FormError form={form} />
          <Button weight="main" type="submit">
            Send me a letter
          </Button>
        </>
      )}
      <Button weight="quiet" onClick={onBack}>
        Back
      </Button>
    </form>
  );
}

const panel = "flex flex-col gap-4 rounded-lg border border-line bg-panel p-6";

function WayIn({ demo }: { demo: boolean }) {
  const [making, setMaking] = useState(false);
  const [forgotten, setForgotten] = useState(false);
  const account = useAccount();
  const { form, refused } = useSentForm({ username: "", password: "", studio: "" });
  const send = form.handleSubmit(({ username, password, studio }) =>
    account.mutate(making ? { do: "up", username, password, studio } : { do: "in", username, password }, {
      onError: refused,
    }),
  );
  if (forgotten) return <Forgotten name={form.getValues("username")} onBack={() => setForgotten(false)} />;
  return (
    <form className={panel} onSubmit={send} noValidate>
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
      {!making && (
        <Button weight="quiet" onClick={() => setForgotten(true)}>
          I forgot my password
        </Button>
      )}
      {demo && !making && (
        <p className="text-sm text-soft">
          To look around: the demo studio is <strong className="text-ink">lanternwick</strong>, its password{" "}
          <strong className="text-ink">glow-by-night</strong>.
        </p>
      )}
    </form>
  );
}
