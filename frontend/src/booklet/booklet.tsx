/** Booklet: the written pattern as it will print, in any terms, and its files. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { pictureUrl } from "../design/use-picture";
import { SizePicture } from "../sizes/size-picture";
import { Button, Check, Field, inputClass, Panel, SelectField, TextField } from "../ui/controls";
import { Refused } from "../ui/refused";
import { type Block, Sections } from "./sections";

type Page = Design["booklet"];

const AS_IT_IS = "as-it-is";
const FOR_ALL = "all";
const DIFFERENCE = "difference";
/** Editions to print: as it is, at each of its sizes, one text for all that are in its own yarn, what differs from its base. */
function editionsOf(design: Design): [string, string][] {
  const sizes = design.sizes.sizes ?? [];
  const all = sizes.some((s) => s.kind !== "yarn");
  return [
    [AS_IT_IS, "as it is"],
    ...(all ? [[FOR_ALL, "all sizes in one"] as [string, string]] : []),
    ...sizes.map((s): [string, string] => [s.key, s.name]),
    ...(design.origin?.id
      ? [[DIFFERENCE, `only what differs from ${design.origin.name}`] as [string, string]]
      : []),
  ];
}

export function BookletStop() {
  const design = useShownDesign();
  const page = usePage(design, "booklet");
  const [terms, setTerms] = useState(design.terms);
  const [asked, setEdition] = useState(AS_IT_IS);
  const editions = editionsOf(design);
  const edition = editions.some(([key]) => key === asked) ? asked : AS_IT_IS;
  const size = design.sizes.sizes?.find((s) => s.key === edition);
  const booklet = useQuery({
    queryKey: ["figure", design.id, "booklet", design.revision, terms, edition],
    queryFn: () =>
      answer<Schemas["BookletOut"]>(
        api.GET("/api/designs/{design_id}/booklet", {
          params: { path: { design_id: design.id }, query: { terms, edition } },
        }),
      ),
    placeholderData: (before) => before,
  });
  const set = (part: Partial<Page>) => page.change({ ...page.value, ...part });
  return (
    <div className="grid min-h-0 flex-1 gap-5 p-5 lg:grid-cols-[19rem_minmax(0,1fr)] print:block print:p-0">
      <aside className="flex flex-col gap-3 overflow-auto no-print">
        <div className="flex items-center justify-between">
          <h1 className="text-2xl">Booklet</h1>
          <SaveMark state={page.state} />
        </div>
        <PageRefusal {...page} />
        <Files
          design={design}
          terms={terms}
          onTerms={setTerms}
          editions={editions}
          edition={edition}
          onEdition={setEdition}
          flush={page.flush}
        />
        <Said value={page.value} set={set} />
      </aside>
      <article
        tabIndex={0}
        className="overflow-auto rounded-lg border border-line bg-panel px-8 py-7 print:border-0 print:p-0"
        aria-label="The booklet"
      >
        <Refused error={booklet.error} />
        {booklet.data && !booklet.error && (
          <div className="mx-auto max-w-2xl">
            <header className="mb-6 text-center">
              {design.parts.length > 0 && !size && (
                <img
                  src={pictureUrl(design.id, design.revision)}
                  alt={`${design.name}, drawn from its rounds`}
                  className="mx-auto max-h-80"
                />
              )}
              {size && (
                <div className="flex justify-center">
                  <SizePicture design={design} entry={size} name={size.name} scale={null} />
                </div>
              )}
              <h2 className="mt-3 text-4xl">{booklet.data.title}</h2>
              <p className="text-soft">
                {booklet.data.byline} · {booklet.data.stamp}
              </p>
            </header>
            <Sections
              sections={
                booklet.data.sections as { key: string; title: string; level: number; blocks: Block[] }[]
              }
            />
          </div>
        )}
      </article>
    </div>
  );
}

/** What the booklet says beside the rounds. */
function Said({ value, set }: { value: Page; set: (part: Partial<Page>) => void }) {
  return (
    <Panel title="What it says">
      <div className="flex flex-col gap-3">
        <TextField
          label="Version"
          maxLength={120}
          value={value.version ?? ""}
          onChange={(e) => set({ version: e.target.value })}
        />
        <Check
          label="Count table after each part"
          checked={value.count_table ?? false}
          onChecked={(count_table) => set({ count_table })}
        />
        <TextField
          label="Also needed"
          maxLength={500}
          value={value.notions ?? ""}
          onChange={(e) => set({ notions: e.target.value })}
          hint="Separated by commas."
        />
        {(["notes", "permissions", "credits", "changes"] as const).map((name) => (
          <Field
            key={name}
            label={
              {
                notes: "Notes for the maker",
                permissions: "Permissions",
                credits: "Credits",
                changes: "Changes since the first version",
              }[name]
            }
          >
            {(ids) => (
              <textarea
                {...ids}
                className={`${inputClass} min-h-16`}
                maxLength={5000}
                value={value[name] ?? ""}
                onChange={(e) => set({ [name]: e.target.value })}
              />
            )}
          </Field>
        ))}
      </div>
    </Panel>
  );
}

function Files({
  design,
  terms,
  onTerms,
  editions,
  edition,
  onEdition,
  flush,
}: {
  design: Design;
  terms: Design["terms"];
  onTerms: (terms: Design["terms"]) => void;
  editions: [string, string][];
  edition: string;
  onEdition: (edition: string) => void;
  flush: () => Promise<void>;
}) {
  const [paper, setPaper] = useState<"a4" | "letter">("a4");
  const [large, setLarge] = useState(false);
  const [lowInk, setLowInk] = useState(false);
  const base = `/api/designs/${design.id}/booklet`;
  const of = `terms=${terms}&edition=${encodeURIComponent(edition)}`;
  const pdf = `${base}.pdf?${of}&paper=${paper}&large=${large}&low_ink=${lowInk}`;
  const faults = design.parts.reduce((sum, p) => sum + p.faults, 0);
  return (
    <Panel title="Print and files">
      {editions.length > 1 && (
        <SelectField label="Edition" value={edition} onValue={onEdition} options={editions} />
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <SelectField
          label="Terms"
          value={terms}
          onValue={onTerms}
          options={[
            ["us", "US"],
            ["uk", "UK"],
            ["letters", "letters"],
          ]}
        />
        <SelectField
          label="Paper"
          value={paper}
          onValue={setPaper}
          options={[
            ["a4", "A4"],
            ["letter", "Letter"],
          ]}
        />
        <Check label="Large type" checked={large} onChecked={setLarge} />
        <Check label="Little ink" checked={lowInk} onChecked={setLowInk} />
      </div>
      {faults > 0 && (
        <p className="mt-2 border-l-4 border-madder bg-madder-ground px-2 py-1" role="note">
          {faults === 1 ? "One count does" : `${faults} counts do`} not add up yet: look at Rounds before you
          print.
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2" onPointerDown={() => void flush()}>
        <Button weight="main" asChild>
          <a href={pdf} download>
            PDF
          </a>
        </Button>
        {(["txt", "md", "json"] as const).map((ending) => (
          <Button key={ending} asChild>
            <a href={`${base}.${ending}?${of}`} download>
              {{ txt: "Text", md: "Markdown", json: "JSON" }[ending]}
            </a>
          </Button>
        ))}
      </div>
    </Panel>
  );
}
