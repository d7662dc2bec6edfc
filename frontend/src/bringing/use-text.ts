/** The text that is brought in: pasted, out of a file, or read out of a document by a job that can be stopped. */
import { useEffect, useState } from "react";
import { refusal, type Schemas, sentence } from "../api/client";
import { jobAnswer, useJob, wayOf, whyNothing } from "../api/jobs";
import { askText, type Written } from "./ask";

const MOST_BYTES = 20_000_000;

export function useText(onText: (written: Written) => void) {
  const [reading, setReading] = useState<Schemas["FileTextOut"] | null>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const { job, error: lost } = useJob(reading?.job ?? null);
  const ended = whyNothing(job) ?? lost;
  useEffect(() => {
    if (!reading || job?.state !== "done") return;
    setReading(null);
    jobAnswer(job.id, "document")
      .then((got) => onText({ name: reading.name, text: got.text, notes: got.notes }))
      .catch((e: unknown) => setError(sentence(e)));
  }, [reading, job, onText]);
  useEffect(() => {
    if (!ended) return;
    setReading(null);
    setError(sentence(ended));
  }, [ended]);
  const take = async (file: File) => {
    setError(null);
    setBusy(true);
    try {
      if (file.size > MOST_BYTES)
        throw refusal(`${file.name} is too large: a text is at most 1,000,000 characters long.`);
      const got = await askText(file);
      if (got.text === null) setReading(got);
      else onText({ name: got.name, text: got.text, notes: [] });
    } catch (e) {
      setError(sentence(e));
    } finally {
      setBusy(false);
    }
  };
  return {
    take,
    stop: () => setReading(null),
    busy: busy || reading !== null,
    /** How far the reading of a document is; null while none is read. */
    way: reading ? wayOf(job) : null,
    error,
    setError,
  };
}
