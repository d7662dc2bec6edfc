/** Tests: called, testers invited, who is where, what they say, what is answered. */
import { useState } from "react";
import type { Design } from "../design/design";
import { Button, Empty, Field, inputClass, NumberField, Panel, SelectField, TextField } from "../ui/controls";
import { Confirm } from "../ui/overlays";
import { Refused } from "../ui/refused";
import { ByYarn } from "./by-yarn";
import { CountLadder } from "./count-ladder";
import { Letters } from "./letters";
import { Papers } from "./papers";
import { Remarks } from "./remarks";
import { TesterList } from "./tester-list";
import { type Call, useMakings, useTestActs, useTests } from "./use-proving";

export function TestsPanel({ design }: { design: Design }) {
  const tests = useTests(design.id);
  const calls = tests.data?.calls ?? [];
  return (
    <div className="grid gap-5">
      <Refused error={tests.error} />
      {tests.data && calls.length === 0 && (
        <Empty title="Nobody tests it yet">
          Testers make it from the draft, each in her own yarn, and point at every round that was unclear.
          Each gets a link of her own and needs no account. About a month is usual.
        </Empty>
      )}
      {calls.map((call) => (
        <OneCall key={call.id} design={design} call={call} columns={tests.data?.columns ?? []} />
      ))}
      {tests.data && <NewCall design={design} first={calls.length === 0} />}
      {tests.data && <Letters design={design} />}
    </div>
  );
}

const day = (plus: number) => new Date(Date.now() + plus * 86_400_000).toISOString().slice(0, 10);

function NewCall({ design, first }: { design: Design; first: boolean }) {
  const { call } = useTestActs(design.id);
  const makings = useMakings(design.id);
  const [title, setTitle] = useState("");
  const [lookAt, setLookAt] = useState("");
  const [wanted, setWanted] = useState<number | null>(5);
  const [opens, setOpens] = useState(day(0));
  const [closes, setCloses] = useState(day(30));
  const [of, setOf] = useState("draft");
  const [size, setSize] = useState("");
  const editions = [
    ["draft", "the pattern as it is now"],
    ...(makings.data?.releases ?? []).map((n) => [String(n), `release ${n}`]),
  ] as [string, string][];
  const sizes = [["", "first size"], ...(makings.data?.sizes ?? [])] as [string, string][];
  const start = () =>
    call.mutate({
      title: title.trim() || (first ? "First test" : "Another test"),
      look_at: lookAt,
      wanted: wanted ?? 5,
      opens,
      closes: closes || null,
      release: of === "draft" ? null : Number(of),
      size,
    });
  return (
    <Panel title="Call a test">
      <div className="grid gap-3 md:grid-cols-4">
        <TextField
          label="Called"
          maxLength={120}
          placeholder={first ? "First test" : "Another test"}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <SelectField label="Of" value={of} onValue={setOf} options={editions} />
        {sizes.length > 1 && <SelectField label="Size" value={size} onValue={setSize} options={sizes} />}
        <NumberField label="Testers wanted" value={wanted} onValue={setWanted} least={1} most={60} />
        <TextField label="From" type="date" value={opens} onChange={(e) => setOpens(e.target.value)} />
        <TextField label="Until" type="date" value={closes} onChange={(e) => setCloses(e.target.value)} />
        <Field label="What to look at most" className="md:col-span-3">
          {(ids) => (
            <textarea
              {...ids}
              className={inputClass}
              rows={2}
              maxLength={5000}
              value={lookAt}
              onChange={(e) => setLookAt(e.target.value)}
            />
          )}
        </Field>
      </div>
      <Button weight="main" className="mt-3" disabled={call.isPending} onClick={start}>
        Call the test
      </Button>
      <Refused error={call.error} />
    </Panel>
  );
}

function ends(call: Call): string {
  if (call.days_left === null || call.days_left === undefined) return "without a last day";
  if (call.days_left < 0) return `over since ${call.closes}`;
  return call.days_left === 0 ? "until today" : `until ${call.closes}, ${call.days_left} days left`;
}

function OneCall({ design, call, columns }: { design: Design; call: Call; columns: readonly string[] }) {
  const { removeCall, thank } = useTestActs(design.id);
  const agreed = call.testers.filter((t) => t.consents);
  return (
    <Panel
      title={call.title}
      aside={
        <Confirm
          trigger={
            <Button weight="quiet" aria-label={`Remove ${call.title}`}>
              Remove
            </Button>
          }
          title={`Remove ${call.title}?`}
          about="All links of its testers end, and everything that they gave is thrown away."
          yes="Remove it"
          onYes={() => removeCall.mutate(call.id)}
        />
      }
    >
      <p className="mb-3">
        {call.testers.length} of {call.wanted} testers, {ends(call)}
        <span className="text-soft"> · {call.edition}</span>
        {call.look_at && <span className="block text-soft">Asked: {call.look_at}</span>}
      </p>
      <TesterList design={design} call={call} />
      <div className="grid gap-4 md:grid-cols-[auto_1fr]">
        <Heat call={call} />
        <Remarks design={design} call={call} version={design.booklet.version ?? ""} />
      </div>
      <ByYarn call={call} />
      <div className="mt-3 flex flex-wrap items-center gap-3 border-t border-line pt-3">
        <Papers design={design} call={call} columns={columns} />
        <Button disabled={agreed.length === 0 || thank.isPending} onClick={() => thank.mutate(call.id)}>
          Thank {agreed.length ? agreed.map((t) => t.consents).join(", ") : "nobody yet"} in the booklet
        </Button>
        {thank.isSuccess && (
          <span role="status" className="text-sm">
            It stands in the booklet's credits.
          </span>
        )}
      </div>
      <Refused error={removeCall.error ?? thank.error} />
    </Panel>
  );
}

/** Where testers stumbled, on the ladders of the parts. */
function Heat({ call }: { call: Call }) {
  const hot = call.heat.filter((part) => part.heat.some((n) => n > 0));
  if (hot.length === 0) return null;
  return (
    <section aria-label="Where testers stumbled" className="mb-3 border-t border-line pt-2">
      <h3 className="mb-1 font-sans text-sm font-semibold">Where testers stumbled</h3>
      <ul className="flex flex-wrap gap-4 md:flex-col">
        {hot.map((part) => (
          <li key={part.part} className="text-center text-sm">
            <CountLadder
              counts={part.counts}
              labels={part.labels}
              fill={part.fill}
              heat={part.heat}
              label={`${part.name}: ${part.heat
                .flatMap((n, i) => (n ? [`${part.labels[i]} ${n}`] : []))
                .join(", ")}`}
            />
            {part.name}
          </li>
        ))}
      </ul>
    </section>
  );
}
