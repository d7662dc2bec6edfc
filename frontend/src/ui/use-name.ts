/** A name typed in place: a refused one stays as typed, with the reason, until it is mended or let go with Escape. */
import { type KeyboardEvent, useEffect, useState } from "react";
import { sentence } from "../api/client";

type Answers = { onError: (error: unknown) => void; onSuccess: () => void };

export function useName(stored: string, what: string, save: (name: string, answers: Answers) => void) {
  const [name, setName] = useState(stored);
  const [error, setError] = useState<string | null>(null);
  useEffect(() => {
    setName(stored);
    setError(null);
  }, [stored]);
  const leave = () => {
    const next = name.trim();
    if (next === stored) setError(null);
    else if (!next) setError(`${what} has a name.`);
    else save(next, { onError: (e) => setError(sentence(e)), onSuccess: () => setError(null) });
  };
  const press = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === "Enter") e.currentTarget.blur();
    if (e.key === "Escape") {
      setName(stored);
      setError(null);
    }
  };
  return { name, setName, error, leave, press };
}
