/** Booklet, a reading desk: the written pattern as it will print, what its proof-reader finds, its editions and releases. */
import { useState } from "react";
import type { Design } from "../design/design";
import { useShownDesign } from "../design/layout";
import { PageRefusal, SaveMark } from "../design/save-state";
import { usePage } from "../design/use-page";
import { pictureUrl } from "../design/use-picture";
import { SizePicture } from "../sizes/size-picture";
import { Refused } from "../ui/refused";
import { AS_IT_IS, type Asked, editionsOf, firstAsked, shownUrl } from "./edition";
import { Files } from "./files";
import { PartOrder } from "./order";
import { Photos } from "./photos";
import { Proof } from "./proof";
import { Releases } from "./releases";
import { type Page, Said } from "./said";
import { Sections } from "./sections";
import { Translating } from "./translating";
import { useBook } from "./use-book";

/** What is asked for, at an edition that there still is. */
function useAsked(design: Design): [Asked, (more: Partial<Asked>) => void] {
  const [asked, setAsked] = useState(() => firstAsked(design));
  const known = editionsOf(design).some(([key]) => key === asked.edition);
  return [
    known ? asked : { ...asked, edition: AS_IT_IS },
    (more) => setAsked((before) => ({ ...before, ...more })),
  ];
}

export function BookletStop() {
  const design = useShownDesign();
  const page = usePage(design, "booklet");
  const [asked, change] = useAsked(design);
  const { booklet, painting } = useBook(design, asked);
  const set = (part: Partial<Page>) => page.change({ ...page.value, ...part });
  return (
    <div className="grid min-h-0 flex-1 gap-4 p-4 lg:grid-cols-[18rem_minmax(0,1fr)] lg:grid-rows-[minmax(0,1fr)] xl:grid-cols-[18rem_minmax(0,1fr)_19rem] print:block print:p-0">
      <aside className="flex min-h-0 flex-col gap-3 overflow-auto no-print" aria-label="What is printed">
        <div className="flex items-center justify-between">
          <h1 className="text-2xl">Booklet</h1>
          <SaveMark state={page.state} />
        </div>
        <PageRefusal {...page} />
        <Files
          design={design}
          asked={asked}
          onAsked={change}
          painting={painting.left}
          templates={booklet.data?.templates ?? 0}
          flush={page.flush}
        />
        {asked.language !== "en" && (
          <Translating design={design} language={asked.language} value={page.value} set={set} />
        )}
        <Said value={page.value} set={set} />
        <PartOrder design={design} value={page.value} set={set} />
        <Photos design={design} value={page.value} set={set} />
      </aside>
      <article
        tabIndex={0}
        className="min-h-0 overflow-auto rounded-lg border border-line bg-panel px-5 py-6 sm:px-8 print:border-0 print:p-0"
        aria-label="The booklet"
      >
        <Refused error={booklet.error} />
        {!booklet.data && !booklet.error && (
          <p role="status" className="text-center text-soft">
            Setting the pages …
          </p>
        )}
        {booklet.data && !booklet.error && (
          <div className="mx-auto max-w-2xl" lang={booklet.data.language}>
            <Cover design={design} edition={asked.edition} book={booklet.data} />
            <Sections
              sections={booklet.data.sections}
              addressOf={(key) => (booklet.data.ready.includes(key) ? shownUrl(design, asked, key) : null)}
            />
          </div>
        )}
      </article>
      <aside
        className="flex min-h-0 flex-col gap-3 overflow-auto lg:col-start-2 xl:col-start-3 no-print"
        aria-label="Proof-reading and releases"
      >
        <Proof design={design} />
        <Releases design={design} asked={asked} flush={page.flush} />
      </aside>
    </div>
  );
}

function Cover({
  design,
  edition,
  book,
}: {
  design: Design;
  edition: string;
  book: { title: string; byline: string; stamp: string };
}) {
  const size = design.sizes.sizes?.find((s) => s.key === edition);
  return (
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
      <h2 className="mt-3 text-4xl">{book.title}</h2>
      <p className="text-soft">
        {book.byline} · {book.stamp}
      </p>
    </header>
  );
}
