/** The way in: sign in, or make an account. */
import { useState } from "react";
import { Refused, sentence } from "../api/client";
import { Button, TextField } from "../ui/controls";
import { useAccount } from "./session";

const SPIRAL =
  "M60 62c0-5 8-5 8 2 0 9-16 9-16-3 0-14 24-14 24 4 0 19-32 19-32-5 0-24 40-24 40 6 0 29-48 29-48-7 0-34 56-34 56 8";

export function Door({ demo }: { demo: boolean }) {
  const [making, setMaking] = useState(false);
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [studio, setStudio] = useState("");
  const account = useAccount();
  const error = account.error;
  const field = error instanceof Refused ? error.problem.field : null;
  const errorOf = (name: string) => (error && field === name ? sentence(error) : null);
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
        <form
          className="flex flex-col gap-4 rounded-lg border border-line bg-panel p-6"
          onSubmit={(e) => {
            e.preventDefault();
            account.mutate(
              making ? { do: "up", username, password, studio } : { do: "in", username, password },
            );
          }}
        >
          <h2 className="text-2xl">{making ? "A studio of your own" : "Sign in"}</h2>
          {making && (
            <TextField
              label="Studio"
              value={studio}
              required
              maxLength={80}
              onChange={(e) => setStudio(e.target.value)}
              error={errorOf("studio")}
            />
          )}
          <TextField
            label="Name"
            autoComplete="username"
            required
            maxLength={150}
            value={username}
            onChange={(e) => setUsername(e.target.value)}
            error={errorOf("username")}
          />
          <TextField
            label="Password"
            type="password"
            required
            autoComplete={making ? "new-password" : "current-password"}
            value={password}
            onChange={(e) => setPassword(e.target.value)}
            error={errorOf("password")}
            hint={making ? "At least eight characters, no common word." : undefined}
          />
          {error && !["studio", "username", "password"].includes(field ?? "") && (
            <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
              {sentence(error)}
            </p>
          )}
          <Button weight="main" type="submit" disabled={account.isPending}>
            {making ? "Open the studio" : "Sign in"}
          </Button>
          <Button
            weight="quiet"
            onClick={() => {
              setMaking(!making);
              account.reset();
            }}
          >
            {making ? "I have one already" : "Make a new studio"}
          </Button>
          {demo && !making && (
            <p className="text-sm text-soft">
              To look around: the demo studio is <strong className="text-ink">lanternwick</strong>, its
              password <strong className="text-ink">glow-by-night</strong>.
            </p>
          )}
        </form>
      </div>
    </main>
  );
}
