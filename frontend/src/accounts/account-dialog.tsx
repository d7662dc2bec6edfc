/** Preferences and password. */
import { useState } from "react";
import { Refused, sentence } from "../api/client";
import { Button, Check, SelectField, TextField } from "../ui/controls";
import { Dialog, useSay } from "../ui/overlays";
import { type Me, useAccount } from "./session";

export const TERMS = [
  ["us", "US terms (sc, hdc, dc)"],
  ["uk", "UK terms (dc, htr, tr)"],
  ["letters", "Letters (X, V, A)"],
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
  const [studio, setStudio] = useState(me.studio);
  const [terms, setTerms] = useState(me.terms);
  const [leftHanded, setLeftHanded] = useState(me.left_handed);
  const [present, setPresent] = useState("");
  const [next, setNext] = useState("");
  const preferences = useAccount();
  const password = useAccount();
  const say = useSay();
  const field = password.error instanceof Refused ? password.error.problem.field : null;
  return (
    <Dialog open={open} onOpen={onOpen} title="Your studio" about={`Signed in as ${me.username}`}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          preferences.mutate(
            { do: "preferences", studio, terms, left_handed: leftHanded },
            { onSuccess: () => say("Saved.") },
          );
        }}
      >
        <TextField
          label="Studio"
          required
          value={studio}
          maxLength={80}
          onChange={(e) => setStudio(e.target.value)}
          error={preferences.error ? sentence(preferences.error) : null}
        />
        <SelectField label="New designs are written in" value={terms} onValue={setTerms} options={TERMS} />
        <Check label="I crochet left-handed" checked={leftHanded} onChecked={setLeftHanded} />
        <Button type="submit" weight="main" className="self-start">
          Save
        </Button>
      </form>
      <form
        className="mt-6 flex flex-col gap-3 border-t border-line pt-4"
        onSubmit={(e) => {
          e.preventDefault();
          password.mutate(
            { do: "password", present, next },
            {
              onSuccess: () => {
                say("The password is changed.");
                setPresent("");
                setNext("");
              },
            },
          );
        }}
      >
        <h3 className="text-lg">Another password</h3>
        <TextField
          label="Present password"
          type="password"
          autoComplete="current-password"
          required
          value={present}
          onChange={(e) => setPresent(e.target.value)}
          error={field === "present" ? sentence(password.error) : null}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          required
          value={next}
          onChange={(e) => setNext(e.target.value)}
          error={password.error && field !== "present" ? sentence(password.error) : null}
        />
        <Button type="submit" className="self-start">
          Change it
        </Button>
      </form>
    </Dialog>
  );
}
