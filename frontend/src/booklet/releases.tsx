/** Releases: what was published, when, in which files; and the next one. */
import { useState } from "react";
import type { Schemas } from "../api/client";
import type { Design } from "../design/design";
import { Button, Panel } from "../ui/controls";
import { Refused } from "../ui/refused";
import type { Asked } from "./edition";
import { NextRelease } from "./next-release";
import { Readers } from "./readers";
import { useReleaseActs, useReleases } from "./use-releases";
import { WhatIsNew } from "./what-is-new";

type Release = Schemas["ReleaseOut"];

export function Releases({
  design,
  asked,
  flush,
}: {
  design: Design;
  asked: Asked;
  flush: () => Promise<void>;
}) {
  const found = useReleases(design);
  const [making, setMaking] = useState(false);
  const list = found.data?.releases ?? [];
  return (
    <Panel title="Releases">
      <Refused error={found.error} />
      {found.data && list.length === 0 && (
        <p className="mb-2 text-soft">
          Nothing is released yet. A release keeps the pattern and its files as they are, under a number and a
          date.
        </p>
      )}
      {found.data && (
        <Button
          weight="main"
          onClick={() => {
            void flush();
            setMaking(true);
          }}
        >
          Release {found.data.next.version || "the pattern"} …
        </Button>
      )}
      <ol className="mt-3 flex flex-col gap-3">
        {list.map((r) => (
          <OneRelease
            key={r.number}
            design={design}
            release={r}
            others={list.map((o) => o.number).filter((n) => n !== r.number)}
          />
        ))}
      </ol>
      {list.length > 0 && <Readers design={design} />}
      {making && found.data && (
        <NextRelease
          design={design}
          next={found.data.next}
          first={asked}
          again={list[0]?.version === found.data.next.version}
          onClose={() => setMaking(false)}
        />
      )}
    </Panel>
  );
}

function OneRelease({
  design,
  release,
  others,
}: {
  design: Design;
  release: Release;
  /** Numbers of the other releases. */
  others: readonly number[];
}) {
  const acts = useReleaseActs(design);
  const [told, setTold] = useState(false);
  return (
    <li className="border-t border-line pt-2" aria-label={`Release ${release.number}`}>
      <p className="font-semibold">
        Release {release.number}: version {release.version}
      </p>
      <p className="text-sm text-soft">
        {release.date}, {release.digest.slice(0, 10)}
      </p>
      {release.forced && (
        <p className="my-1 border-l-4 border-weld bg-weld-ground px-2 py-0.5 text-sm">
          Released all the same: {release.forced}
        </p>
      )}
      {release.state === "printing" && (
        <p role="status" className="text-sm">
          Painting its pictures and printing its files …
        </p>
      )}
      {release.error && (
        <p role="alert" className="my-1 border-l-4 border-madder bg-madder-ground px-2 py-0.5 text-sm">
          {release.error}
        </p>
      )}
      {release.state === "failed" && (
        <Button onClick={() => acts.mutate({ do: "print", number: release.number })}>Print it again</Button>
      )}
      <FileList design={design} release={release} />
      <Button weight="quiet" className="mt-1 text-sm" onClick={() => setTold(true)}>
        What is new in it
      </Button>
      {told && <WhatIsNew design={design} release={release} others={others} onClose={() => setTold(false)} />}
    </li>
  );
}

/** A size of a file as it is said. */
export function sizeSaid(bytes: number): string {
  return bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1e6).toFixed(1)} MB`;
}

function FileList({ design, release }: { design: Design; release: Release }) {
  const titles = [...new Set(release.files.map((f) => f.title))];
  return (
    <ul className="text-sm">
      {titles.map((title) => (
        <li key={title}>
          {title}:{" "}
          {release.files
            .filter((f) => f.title === title)
            .map((f, i) => (
              <span key={f.id}>
                {i > 0 && ", "}
                <a
                  className="underline"
                  href={`/api/designs/${design.id}/releases/${release.number}/files/${f.id}`}
                  download
                  title={`${f.name}, ${sizeSaid(f.size)}`}
                >
                  {f.ending.toUpperCase()}
                </a>
              </span>
            ))}
        </li>
      ))}
    </ul>
  );
}
