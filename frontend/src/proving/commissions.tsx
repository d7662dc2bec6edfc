/** Commissions: what a client is shown and asked, by a link of her own. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, Check, Empty, NumberField, Panel, TextField } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { ToldOnce } from "../ui/told-once";
import { type Commission, useCommissions } from "./use-proving";

type Typed = Schemas["CommissionIn"];

export function Commissions({ design }: { design: Design }) {
  const { list, take } = useCommissions(design.id);
  const [client, setClient] = useState("");
  const found = list.data?.commissions ?? [];
  const begin = () => take.mutate({ client: client.trim() } as Typed, { onSuccess: () => setClient("") });
  return (
    <div className="grid gap-5">
      <Refused error={list.error ?? take.error} />
      {list.data && found.length === 0 && (
        <Empty title="Nobody has ordered one">
          A client sees the photographs that you choose, says yes or no to changes, and sees price and
          balance. Nothing else of the design is to be seen by her link.
        </Empty>
      )}
      {found.map((one) => (
        <OneCommission key={one.id} design={design} one={one} />
      ))}
      <Panel title="Take a commission">
        <div className="flex flex-wrap items-end gap-2">
          <TextField
            label="Client"
            maxLength={120}
            value={client}
            onChange={(e) => setClient(e.target.value)}
            className="min-w-52"
          />
          <Button weight="main" disabled={!client.trim() || take.isPending} onClick={begin}>
            Take it
          </Button>
        </div>
      </Panel>
    </div>
  );
}

const typedOf = (one: Commission): Typed => ({
  client: one.client,
  about: one.about,
  price: one.price,
  paid: one.paid,
  currency: one.currency,
  due: one.due ?? null,
});

function OneCommission({ design, one }: { design: Design; one: Commission }) {
  const acts = useCommissions(design.id);
  const [path, setPath] = useState<string | null>(null);
  const set = (part: Partial<Typed>) =>
    acts.change.mutate({ id: one.id, body: { ...typedOf(one), ...part } });
  const failed = [acts.change, acts.remove, acts.link, acts.withdraw, acts.show, acts.ask, acts.takeBack];
  return (
    <Panel
      title={one.client}
      aside={
        <Confirm
          trigger={
            <Button weight="quiet" aria-label={`Remove the commission of ${one.client}`}>
              Remove
            </Button>
          }
          title={`Remove the commission of ${one.client}?`}
          about="What was agreed goes with it, and her link opens nothing any more."
          yes="Remove it"
          onYes={() => acts.remove.mutate(one.id)}
        />
      }
    >
      <div className="grid gap-3 md:grid-cols-4">
        <NumberField
          label="Price"
          unit={one.currency}
          value={Number(one.price)}
          onValue={(v) => set({ price: v ?? 0 })}
          least={0}
          most={999_999}
          heard="leaving"
        />
        <NumberField
          label="Paid"
          unit={one.currency}
          value={Number(one.paid)}
          onValue={(v) => set({ paid: v ?? 0 })}
          least={0}
          most={999_999}
          heard="leaving"
        />
        <TextField
          label="Currency"
          maxLength={12}
          defaultValue={one.currency}
          onBlur={(e) =>
            e.target.value.trim() &&
            e.target.value.trim() !== one.currency &&
            set({ currency: e.target.value.trim() })
          }
        />
        <TextField
          label="Wanted for"
          type="date"
          value={one.due ?? ""}
          onChange={(e) => set({ due: e.target.value || null })}
        />
        <TextField
          label="What was ordered"
          maxLength={5000}
          defaultValue={one.about}
          className="md:col-span-4"
          onBlur={(e) => e.target.value !== one.about && set({ about: e.target.value })}
        />
      </div>
      <p className="my-2">
        With all that was agreed {Number(one.total).toFixed(2)} {one.currency}; still to pay{" "}
        {Math.max(Number(one.total) - Number(one.paid), 0).toFixed(2)} {one.currency}
      </p>
      <Agreements design={design} one={one} />
      <Photos design={design} one={one} />
      <div className="mt-3 flex flex-wrap items-end gap-2 border-t border-line pt-3">
        <Button
          weight="main"
          onClick={() => acts.link.mutate(one.id, { onSuccess: (given) => setPath(given.path) })}
        >
          {one.link ? "Make another link" : "Make her link"}
        </Button>
        {one.link && (
          <Button weight="quiet" onClick={() => acts.withdraw.mutate(one.id)}>
            Withdraw the link<span className="sr-only"> of {one.client}</span>
          </Button>
        )}
        {path && (
          <ToldOnce
            what="Her link"
            address={`${window.location.origin}${path}`}
            className="min-w-80 flex-1"
          />
        )}
      </div>
      <Refused error={failed.find((f) => f.error)?.error} />
    </Panel>
  );
}

const SAID = { asked: "waits for an answer", yes: "yes", no: "no" } as const;

function Agreements({ design, one }: { design: Design; one: Commission }) {
  const { ask, takeBack } = useCommissions(design.id);
  const [text, setText] = useState("");
  const [price, setPrice] = useState<number | null>(0);
  return (
    <section aria-label={`Changes to agree on with ${one.client}`} className="border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Changes to agree on</h3>
      <ul className="mb-2 flex flex-col gap-1 text-sm">
        {one.agreements.map((a) => (
          <li
            key={a.id}
            className={`flex items-center gap-2 border-l-4 px-2 ${a.state === "yes" ? "border-moss bg-moss-ground" : a.state === "no" ? "border-madder bg-madder-ground" : "border-weld bg-weld-ground"}`}
          >
            <span className="flex-1">
              {a.text}
              {a.price !== 0 &&
                ` (${a.price > 0 ? "+" : "−"}${Math.abs(a.price).toFixed(2)} ${one.currency})`}
              : <strong>{SAID[a.state]}</strong>
              {a.answered && ` on ${a.answered.slice(0, 10)}`}
              {a.said && `, “${a.said}”`}
            </span>
            {a.state === "asked" && (
              <Button weight="quiet" onClick={() => takeBack.mutate({ id: one.id, agreement: a.id })}>
                Take back<span className="sr-only">: {a.text}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-2">
        <TextField
          label="Ask about a change"
          maxLength={1000}
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="min-w-60 flex-1"
        />
        <NumberField
          label="Changes the price by"
          unit={one.currency}
          value={price}
          onValue={setPrice}
          least={-999_999}
          most={999_999}
          className="w-44"
        />
        <Button
          disabled={!text.trim() || ask.isPending}
          onClick={() =>
            ask.mutate({ id: one.id, text: text.trim(), price: price ?? 0 }, { onSuccess: () => setText("") })
          }
        >
          Ask
        </Button>
      </div>
    </section>
  );
}

function Photos({ design, one }: { design: Design; one: Commission }) {
  const { show } = useCommissions(design.id);
  if (one.photos.length === 0)
    return (
      <p className="mt-2 text-sm text-soft">
        Photographs of its makings can be shown here once some were taken.
      </p>
    );
  const set = (picture: string, shown: boolean) =>
    show.mutate({
      id: one.id,
      pictures: one.photos
        .filter((p) => (p.picture === picture ? shown : p.shown))
        .map((p) => ({ picture: p.picture, caption: p.caption })),
    });
  return (
    <section aria-label={`Photographs for ${one.client}`} className="mt-2 border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Photographs that she sees</h3>
      <ul className="flex flex-wrap gap-3">
        {one.photos.map((p, i) => (
          <li key={p.picture}>
            <img
              className="mb-1 h-24 rounded-md"
              alt={`A photograph of a making, ${i + 1}`}
              src={`/api/makings/${p.making}/pictures/${p.picture}`}
            />
            <Check label={`show ${i + 1}`} checked={p.shown} onChecked={(on) => set(p.picture, on)} />
          </li>
        ))}
      </ul>
    </section>
  );
}
