/** Her own prose side by side with its translation; what is written otherwise since asks to be translated again. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, inputClass } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { LANGUAGES } from "./edition";
import type { Page } from "./said";
import { type Foreign, translated } from "./translated";
import { proposals, Translators, useTranslators } from "./translators";

export function Translating({
  design,
  language,
  value,
  set,
}: {
  design: Design;
  language: Foreign;
  value: Page;
  set: (part: Partial<Page>) => void;
}) {
  const [open, setOpen] = useState(false);
  const name = LANGUAGES.find(([key]) => key === language)?.[1] ?? language;
  return (
    <>
      <Button className="mt-2" onClick={() => setOpen(true)}>
        Your words in {name} …
      </Button>
      {open && (
        <Dialog
          open
          wide
          onOpen={setOpen}
          title={`Your words in ${name}`}
          about="Rounds and set sentences are translated already. What is left empty here is printed as you wrote it, and marked."
        >
          <Pieces design={design} language={language} name={name} value={value} set={set} />
        </Dialog>
      )}
    </>
  );
}

function Pieces({
  design,
  language,
  name,
  value,
  set,
}: {
  design: Design;
  language: Foreign;
  name: string;
  value: Page;
  set: (part: Partial<Page>) => void;
}) {
  const prose = useQuery({
    queryKey: ["figure", design.id, "prose", design.revision],
    queryFn: () =>
      answer<Schemas["ProseOut"][]>(
        api.GET("/api/designs/{design_id}/prose", { params: { path: { design_id: design.id } } }),
      ),
    placeholderData: (before) => before,
  });
  const all = value.translations ?? [];
  const pieces = (prose.data ?? []).filter((p) => !p.everyones);
  const text = (source: string) =>
    all.find((t) => t.language === language && t.source === source)?.text ?? "";
  const gone = all.filter((t) => t.language === language && !prose.data?.some((p) => p.text === t.source));
  const { own } = useTranslators(design.id, language);
  const say = (source: string, said: string) =>
    set({ translations: translated(all, language, source, said) });
  return (
    <>
      <Refused error={prose.error} />
      {pieces.length > 0 && (
        <Translators
          design={design.id}
          language={language}
          name={name}
          said={pieces.map((p) => p.text)}
          all={all}
          onTake={(translations) => set({ translations })}
        />
      )}
      {prose.data && pieces.length === 0 && <p>There is nothing of your own to translate.</p>}
      <ul className="flex flex-col gap-3">
        {pieces.map((p) => (
          <li key={p.text} className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
            <p className="whitespace-pre-line">
              <span className="block text-sm text-soft">{p.where}</span>
              {p.text}
            </p>
            <textarea
              lang={language}
              aria-label={`${p.where} in ${name}: ${p.text}`}
              className={`${inputClass} min-h-14`}
              maxLength={5000}
              value={text(p.text)}
              onChange={(e) => say(p.text, e.target.value)}
            />
            {proposals(own, p.text, text(p.text)).map((one) => (
              <p key={one.id} className="flex items-start justify-between gap-2 text-sm sm:col-start-2">
                <span className="whitespace-pre-line">
                  <span className="text-soft">{one.by}: </span>
                  <span lang={language}>{one.text}</span>
                </span>
                <Button
                  aria-label={`Take over from ${one.by}: ${one.text}`}
                  onClick={() => say(p.text, one.text)}
                >
                  Take over
                </Button>
              </p>
            ))}
          </li>
        ))}
      </ul>
      {prose.data && gone.length > 0 && (
        <section aria-label="Translations of words that changed" className="mt-4 border-t border-line pt-3">
          <h3 className="text-lg">You wrote these otherwise since</h3>
          <ul className="mt-1 flex flex-col gap-2">
            {gone.map((t) => (
              <li key={t.source} className="grid gap-x-4 sm:grid-cols-[1fr_1fr_auto]">
                <span className="line-through">{t.source}</span>
                <span lang={language}>{t.text}</span>
                <Button weight="quiet" aria-label={`Throw away: ${t.text}`} onClick={() => say(t.source, "")}>
                  Throw away
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
