/** Proving: making log, testers, and what still blocks release. */
import { X } from "lucide-react";
import { type Design, newKey } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import {
  Button,
  boxClass,
  Field,
  IconButton,
  inputClass,
  Panel,
  SelectField,
  TextField,
} from "../ui/controls";

type Page = Design["proving"];
type Tester = NonNullable<Page["testers"]>[number];

function today(): string {
  return new Date().toISOString().slice(0, 10);
}

export function ProvingStop() {
  const design = useShownDesign();
  const page = usePage(design, "proving");
  const { value, change } = page;
  const log = value.log ?? [];
  const testers = value.testers ?? [];
  const faults = design.parts.filter((p) => p.faults > 0);
  const pictures = (design.assembly.steps ?? []).flatMap((s, i) =>
    s.picture ? [`step ${i + 1}${s.text ? ` (${s.text})` : ""}`] : [],
  );
  const setTester = (key: string, part: Partial<Tester>) =>
    change({ ...value, testers: testers.map((t) => (t.key === key ? { ...t, ...part } : t)) });
  return (
    <div className="mx-auto w-full max-w-6xl p-5">
      <div className="mb-3 flex items-center justify-between">
        <h1 className="text-2xl">Proving</h1>
        <SaveMark state={page.state} />
      </div>
      <PageRefusal {...page} />
      <div className="grid gap-5 lg:grid-cols-2">
        <Panel title="What blocks release">
          {faults.length > 0 ? (
            <p className="mb-2 border-l-4 border-madder bg-madder-ground px-2 py-1">
              Counts do not add up in {faults.map((p) => p.name).join(", ")}: no tester should be the first to
              find a wrong sum.
            </p>
          ) : (
            <p className="mb-2 border-l-4 border-moss bg-moss-ground px-2 py-1">Every count adds up.</p>
          )}
          {pictures.length > 0 && (
            <p className="mb-2 border-l-4 border-weld bg-weld-ground px-2 py-1">
              A picture is wanted for {pictures.join(", ")}.
            </p>
          )}
          <Field label="Still to do before release">
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-24`}
                maxLength={5000}
                value={value.blockers ?? ""}
                onChange={(e) => change({ ...value, blockers: e.target.value })}
              />
            )}
          </Field>
        </Panel>
        <Panel
          title="Making log"
          aside={
            <Button
              onClick={() => change({ ...value, log: [...log, { key: newKey(), date: today(), text: "" }] })}
            >
              Note something
            </Button>
          }
        >
          {!log.length && (
            <p className="text-soft">
              What you did and changed on the hook, note it then: a figure whose notes are missing can never
              be published.
            </p>
          )}
          <ul className="flex flex-col gap-1.5">
            {log.map((entry, i) => (
              <li key={entry.key} className="flex gap-1.5">
                <input
                  type="date"
                  aria-label={`Day of note ${i + 1}`}
                  className={`${boxClass} w-40 shrink-0`}
                  value={entry.date}
                  onChange={(e) =>
                    e.target.value &&
                    change({
                      ...value,
                      log: log.map((l) => (l === entry ? { ...l, date: e.target.value } : l)),
                    })
                  }
                />
                <input
                  aria-label={`Note ${i + 1}`}
                  className={inputClass}
                  maxLength={500}
                  value={entry.text}
                  onChange={(e) =>
                    change({
                      ...value,
                      log: log.map((l) => (l === entry ? { ...l, text: e.target.value } : l)),
                    })
                  }
                />
                <IconButton
                  label={`Remove note ${i + 1}`}
                  onClick={() => change({ ...value, log: log.filter((l) => l !== entry) })}
                >
                  <X size={16} />
                </IconButton>
              </li>
            ))}
          </ul>
        </Panel>
        <Panel
          className="lg:col-span-2"
          title="Testers"
          aside={
            <Button
              onClick={() =>
                change({
                  ...value,
                  testers: [...testers, { key: newKey(), name: "", yarn: "", state: "asked", remarks: "" }],
                })
              }
            >
              Add a tester
            </Button>
          }
        >
          {!testers.length && (
            <p className="text-soft">
              Testers make it from the draft, each in her own yarn, and tell what was unclear. About a month
              is usual.
            </p>
          )}
          <ul className="flex flex-col gap-3">
            {testers.map((t, i) => (
              <li key={t.key} className="grid items-start gap-2 md:grid-cols-[1fr_1fr_9rem_2fr_auto]">
                <TextField
                  label={`Tester ${i + 1}`}
                  maxLength={120}
                  value={t.name}
                  onChange={(e) => setTester(t.key, { name: e.target.value })}
                />
                <TextField
                  label="Yarn used"
                  maxLength={120}
                  value={t.yarn ?? ""}
                  onChange={(e) => setTester(t.key, { yarn: e.target.value })}
                />
                <SelectField
                  label="State"
                  value={t.state ?? "asked"}
                  onValue={(state) => setTester(t.key, { state })}
                  options={[
                    ["asked", "asked"],
                    ["making", "making"],
                    ["done", "done"],
                  ]}
                />
                <Field label="Remarks">
                  {(ids) => (
                    <textarea
                      {...ids}
                      className={inputClass}
                      rows={1}
                      maxLength={5000}
                      value={t.remarks ?? ""}
                      onChange={(e) => setTester(t.key, { remarks: e.target.value })}
                    />
                  )}
                </Field>
                <IconButton
                  label={`Remove tester ${i + 1}`}
                  className="mt-6"
                  onClick={() => change({ ...value, testers: testers.filter((o) => o !== t) })}
                >
                  <X size={16} />
                </IconButton>
              </li>
            ))}
          </ul>
        </Panel>
      </div>
    </div>
  );
}
