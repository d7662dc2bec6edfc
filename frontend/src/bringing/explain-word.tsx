/** A word explained once for the whole text. */
import { type FormEvent, useId, useState } from "react";
import { sentence } from "../api/client";
import { Button, TextField } from "../ui/controls";

/** The word that a problem quotes; none where nothing is wrong. */
function likelyWord(message: string): string {
  return /['‘“]([^'’”]{1,40})['’”]/.exec(message)?.[1] ?? "";
}

export function ExplainWord({
  text,
  message,
  onExplain,
  onCancel,
}: {
  text: string;
  message: string;
  onExplain: (word: string, means: string) => Promise<void>;
  onCancel: () => void;
}) {
  const [word, setWord] = useState(() => likelyWord(message));
  const [means, setMeans] = useState("");
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const words = useId();
  const send = async (e: FormEvent) => {
    e.preventDefault();
    e.stopPropagation();
    setBusy(true);
    try {
      await onExplain(word.trim(), means.trim());
    } catch (refused) {
      setError(sentence(refused));
      setBusy(false);
    }
  };
  return (
    <form
      onSubmit={(e) => void send(e)}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.stopPropagation();
        onCancel();
      }}
      className="my-1 grid gap-2 rounded border border-woad bg-panel p-2 sm:grid-cols-2"
    >
      <TextField
        label="Word"
        list={words}
        value={word}
        maxLength={80}
        onChange={(e) => setWord(e.target.value)}
      />
      <datalist id={words}>
        {[...new Set(text.split(/\s+/).filter(Boolean))].map((w) => (
          <option key={w} value={w} />
        ))}
      </datalist>
      <TextField
        label="Means"
        autoFocus
        value={means}
        maxLength={120}
        error={error}
        hint="In stitches (“2 sc in one stitch”, “decrease”), “colour blue”, or “nothing”; it holds in the whole text"
        onChange={(e) => setMeans(e.target.value)}
      />
      <div className="flex gap-2 sm:col-span-2">
        <Button type="submit" weight="main" disabled={busy || !word.trim() || !means.trim()}>
          Explain it
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </form>
  );
}
