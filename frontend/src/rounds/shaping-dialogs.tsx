/** What is asked before rounds are changed. */
import { type FormEvent, type ReactNode, useState } from "react";
import { Button, Check, NumberField, SelectField, TextField } from "../ui/controls";
import { Dialog } from "../ui/overlays";

/** A question in a dialog with one answer. */
function Asking({
  open,
  onClose,
  title,
  does,
  ready,
  onDone,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  does: string;
  ready: boolean;
  onDone: () => void;
  children: ReactNode;
}) {
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (!ready) return;
    onDone();
    onClose();
  };
  return (
    <Dialog open={open} onOpen={(o) => !o && onClose()} title={title}>
      <form onSubmit={submit} className="flex flex-col gap-3">
        {children}
        <Button type="submit" weight="main" className="self-end" disabled={!ready}>
          {does}
        </Button>
      </form>
    </Dialog>
  );
}

export function Insert({
  open,
  onClose,
  after,
  onMany,
}: {
  open: boolean;
  onClose: () => void;
  after: string;
  onMany: (many: number) => void;
}) {
  const [many, setMany] = useState<number | null>(1);
  return (
    <Asking
      open={open}
      onClose={onClose}
      title={`Straight rounds behind ${after}`}
      does="Insert them"
      ready={Boolean(many)}
      onDone={() => many && onMany(many)}
    >
      <NumberField label="How many" least={1} most={200} value={many} onValue={setMany} className="w-28" />
    </Asking>
  );
}

export function StartOn({
  open,
  onClose,
  now,
  onCount,
}: {
  open: boolean;
  onClose: () => void;
  now: number;
  onCount: (count: number) => void;
}) {
  const [count, setCount] = useState<number | null>(null);
  const asked = count ?? now + 1;
  return (
    <Asking
      open={open}
      onClose={onClose}
      title="Start on another count"
      does="Look at it"
      ready={asked !== now}
      onDone={() => onCount(asked)}
    >
      <NumberField
        label="Stitches in the ring"
        least={3}
        most={60}
        value={asked}
        onValue={setCount}
        className="w-28"
      />
      <p className="max-w-96 text-sm text-soft">
        {`It starts on ${now} now. The first rounds grow more evenly to the count that they come to; all behind stays. For every count in proportion, make a size of it.`}
      </p>
    </Asking>
  );
}

const MOST_COLOURS = 6;

export function Stripes({
  open,
  onClose,
  where,
  yarns,
  onStripes,
}: {
  open: boolean;
  onClose: () => void;
  where: string;
  yarns: string[];
  onStripes: (colours: string[], each: number) => void;
}) {
  const [chosen, setChosen] = useState<string[] | null>(null);
  const [each, setEach] = useState<number | null>(2);
  const colours = chosen ?? [yarns[0] ?? "", yarns[1] ?? yarns[0] ?? ""];
  const put = (at: number, name: string) => setChosen(colours.map((c, i) => (i === at ? name : c)));
  const known = yarns.map((y) => [y, y] as const);
  return (
    <Asking
      open={open}
      onClose={onClose}
      title={`Stripes over ${where}`}
      does="Look at them"
      ready={Boolean(each) && new Set(colours).size > 1}
      onDone={() => each && onStripes(colours, each)}
    >
      {yarns.length < 2 && (
        <p className="max-w-96">The figure has one yarn only: put a second one into its basket first.</p>
      )}
      <div className="flex flex-wrap items-end gap-2">
        {colours.map((name, at) => (
          <SelectField
            key={at}
            label={`Stripe ${at + 1}`}
            value={name}
            onValue={(next) => put(at, next)}
            options={known}
          />
        ))}
      </div>
      <div className="flex gap-2">
        <Button
          disabled={colours.length >= MOST_COLOURS || !yarns.length}
          onClick={() => setChosen([...colours, yarns[colours.length % yarns.length] ?? ""])}
        >
          One stripe more
        </Button>
        <Button disabled={colours.length <= 2} onClick={() => setChosen(colours.slice(0, -1))}>
          One fewer
        </Button>
      </div>
      <NumberField
        label="Rounds of each"
        least={1}
        most={200}
        value={each}
        onValue={setEach}
        className="w-28"
      />
      <p className="max-w-96 text-sm text-soft">
        In a spiral the colours step at the start of a round. Behind the stripes it goes on in the colour that
        was in hand there.
      </p>
    </Asking>
  );
}

export function Divide({
  open,
  onClose,
  after,
  live,
  back,
  onLegs,
}: {
  open: boolean;
  onClose: () => void;
  after: string;
  live: number;
  back: number;
  onLegs: (rounds: number, shift: number, bridge: number) => void;
}) {
  const [rounds, setRounds] = useState<number | null>(6);
  const [bridge, setBridge] = useState<number | null>(0);
  const half = Math.floor(live / 2);
  const [squared, setSquared] = useState(true);
  return (
    <Asking
      open={open}
      onClose={onClose}
      title={`Two legs behind ${after}`}
      does="Look at them"
      ready={Boolean(rounds)}
      onDone={() => rounds && onLegs(rounds, squared ? back : 0, bridge ?? 0)}
    >
      <div className="flex gap-3">
        <NumberField
          label="Rounds of each leg"
          least={1}
          most={200}
          value={rounds}
          onValue={setRounds}
          className="w-36"
        />
        <NumberField
          label="Chains between them"
          least={0}
          most={half}
          value={bridge}
          onValue={setBridge}
          className="w-36"
        />
      </div>
      {back > 0 && (
        <Check
          label={`bring the start back first, by ${back} ${back === 1 ? "stitch" : "stitches"}`}
          checked={squared}
          onChecked={setSquared}
        />
      )}
      <p className="max-w-96 text-sm text-soft">
        {bridge
          ? `Each leg takes half of ${live} stitches and its own side of the ${bridge === 1 ? "chain" : `${bridge} chains`}: ${half + bridge} in all. Both are drawn in and closed. Rounds behind ${after} go.`
          : `Of ${live} stitches each leg takes half; the other half waits. Both are drawn in and closed. Rounds behind ${after} go.`}
      </p>
    </Asking>
  );
}

export function Recolour({
  open,
  onClose,
  colours,
  onNames,
}: {
  open: boolean;
  onClose: () => void;
  colours: string[];
  onNames: (old: string, fresh: string) => void;
}) {
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const from = colours.includes(old) ? old : (colours[0] ?? "");
  return (
    <Asking
      open={open}
      onClose={onClose}
      title="Call a colour by another name"
      does="Rename it in these rounds"
      ready={Boolean(fresh.trim())}
      onDone={() => onNames(from, fresh.trim())}
    >
      <SelectField
        label="Colour"
        value={from}
        onValue={setOld}
        options={colours.map((c) => [c, c] as const)}
      />
      <TextField label="New name" maxLength={40} value={fresh} onChange={(e) => setFresh(e.target.value)} />
    </Asking>
  );
}
