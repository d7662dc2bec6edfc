/** Translators by a link: invited, and what they wrote taken over piece by piece or all at once. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { Button } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { ToldOnce } from "../ui/told-once";
import { LinkForm } from "./link-form";
import type { Foreign, Translation } from "./translated";
import { translated } from "./translated";

export type Translator = Schemas["TranslatorOut"];

const path = (design_id: number) => ({ path: { design_id } });

export function useTranslators(design: number, language: Foreign) {
  const found = useQuery({
    queryKey: ["translators", design],
    queryFn: () =>
      answer<Translator[]>(api.GET("/api/designs/{design_id}/translators", { params: path(design) })),
  });
  return { ...found, own: (found.data ?? []).filter((t) => t.language === language) };
}

/** What a translator wrote of this piece, where it is not what stands there already. */
export function proposals(all: readonly Translator[], source: string, now: string) {
  return all.flatMap((t) =>
    t.pieces
      .filter((p) => p.source === source && p.text !== now)
      .map((p) => ({ by: t.name, id: t.id, text: p.text })),
  );
}

/** The translations with everything that a translator wrote of what is still said. */
export function takenOver(
  all: readonly Translation[],
  language: Foreign,
  from: Translator,
  said: readonly string[],
): Translation[] {
  return from.pieces
    .filter((p) => said.includes(p.source))
    .reduce((now, p) => translated(now, language, p.source, p.text), [...all]);
}

export function Translators({
  design,
  language,
  name,
  said,
  all,
  onTake,
}: {
  design: number;
  language: Foreign;
  name: string;
  /** Every piece of prose that is to be translated, as it stands now. */
  said: readonly string[];
  all: readonly Translation[];
  onTake: (next: Translation[]) => void;
}) {
  const queries = useQueryClient();
  const { own, error } = useTranslators(design, language);
  const again = () => queries.invalidateQueries({ queryKey: ["translators", design] });
  const invite = useMutation({
    mutationFn: (asked: { name: string; days: number }) =>
      answer<Translator>(
        api.POST("/api/designs/{design_id}/translators", {
          params: path(design),
          body: { language, ...asked },
        }),
      ),
    onSuccess: again,
  });
  const remove = useMutation({
    mutationFn: (translator_id: number) =>
      answer<Translator[]>(
        api.DELETE("/api/designs/{design_id}/translators/{translator_id}", {
          params: { path: { design_id: design, translator_id } },
        }),
      ),
    onSuccess: again,
  });
  const address = invite.data?.address ? `${window.location.origin}${invite.data.address}` : null;
  return (
    <section aria-label="Translators" className="mb-4 border-b border-line pb-3">
      <h3 className="mb-1 font-sans text-sm font-semibold">Translated by somebody else</h3>
      <p className="mb-2 text-sm text-soft">
        Whoever has a link writes these pieces in {name} on a page of their own. Nothing is printed before you
        take it over.
      </p>
      <ul className="mb-2 text-sm">
        {own.map((t) => (
          <One
            key={t.id}
            one={t}
            left={t.pieces.filter((p) => said.includes(p.source) && !holds(all, language, p)).length}
            of={said.length}
            onTake={() => onTake(takenOver(all, language, t, said))}
            onRemove={() => remove.mutate(t.id)}
          />
        ))}
      </ul>
      <LinkForm
        label="Who translates"
        usual={60}
        needsName
        busy={invite.isPending}
        onMake={(who, days) => invite.mutate({ name: who, days })}
      />
      <Refused error={error ?? invite.error ?? remove.error} />
      {address && <ToldOnce what="The translator's link" address={address} className="mt-2" />}
    </section>
  );
}

function holds(all: readonly Translation[], language: Foreign, piece: { source: string; text: string }) {
  return all.some((t) => t.language === language && t.source === piece.source && t.text === piece.text);
}

function One({
  one,
  left,
  of,
  onTake,
  onRemove,
}: {
  one: Translator;
  left: number;
  of: number;
  onTake: () => void;
  onRemove: () => void;
}) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-2 py-0.5">
      <span>
        {one.name}, {one.closed ? "link closed" : `until ${one.expires.slice(0, 10)}`}: {one.pieces.length} of{" "}
        {of} pieces written
      </span>
      <span className="flex gap-2">
        {left > 0 && (
          <Button onClick={onTake} aria-label={`Take over all ${left} of ${one.name}`}>
            Take over all {left}
          </Button>
        )}
        <Confirm
          trigger={
            <Button weight="quiet" aria-label={`Remove the translator ${one.name}`}>
              Remove
            </Button>
          }
          title={`Remove ${one.name}?`}
          about="The link opens nothing any more, and what was written there and not taken over is gone. What you took over stays."
          yes="Remove"
          onYes={onRemove}
        />
      </span>
    </li>
  );
}
