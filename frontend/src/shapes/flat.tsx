/** What keeps a flat shape flat when it is stuffed: threads sewn through, or less filling, and what each brings. */

import { useState } from "react";
import { type Schemas, sentence } from "../api/client";
import { Button } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import { Dialog } from "../ui/overlays";
import { rounded } from "../ui/units";
import { Heads } from "./heads";
import type { Thread } from "./recipe";
import { useWorked } from "./work";

type Remedy = Schemas["Remedy"];

const HEADS = ["with", "off (mm)", "of a stitch", "volume", "choose"];

export function Flat({
  question,
  threads,
  onThreads,
}: {
  question: Schemas["ShapeIn"];
  threads: Thread[];
  onThreads: (threads: Thread[]) => void;
}) {
  const [open, setOpen] = useState(false);
  const job = useWorked("flat");
  const show = (on: boolean) => {
    setOpen(on);
    if (on) job.start(question);
    else job.stop();
  };
  const ways = job.got?.ways ?? [];
  return (
    <>
      <Button weight="quiet" onClick={() => show(true)}>
        Keep it flat
      </Button>
      {threads.length > 0 && (
        <Button weight="quiet" onClick={() => onThreads([])}>
          Without threads
        </Button>
      )}
      <Dialog open={open} onOpen={show} title="What keeps this shape flat">
        {job.way && (
          <JobBar name="Trying" way={job.way}>
            Settling each …
          </JobBar>
        )}
        {job.error && <p role="alert">{sentence(job.error)}</p>}
        {!job.way && ways.length > 0 && (
          <>
            <table className="w-full text-sm tabular-nums">
              <Heads names={HEADS} />
              <tbody>
                {ways.map((way, i) => (
                  <tr key={saidOf(way, i)} className="border-t border-line">
                    <td className="px-1.5 py-1">{saidOf(way, i)}</td>
                    <td className="px-1.5">{rounded(way.error.rms_mm, 1)}</td>
                    <td className="px-1.5">{rounded(way.error.rms_w, 2)}</td>
                    <td className="px-1.5">{Math.round(way.error.volume_ratio * 100)} %</td>
                    <td>
                      {way.threads.length > 0 && (
                        <Button
                          weight="quiet"
                          className="px-2 py-0.5 text-sm"
                          aria-label={`Take: ${saidOf(way, i)}`}
                          onClick={() => {
                            onThreads(way.threads);
                            show(false);
                          }}
                        >
                          Take
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="mt-2 text-sm text-soft">
              {ways.some((way) => way.threads.length > 0)
                ? "Each thread goes through from stitch to stitch and is drawn in to its length; the rounds name them all. A thread under strain can cut through or give: use a strong one, knot it twice and bury its ends, and never rely on it in a toy for small children."
                : "It bulges nowhere that threads would hold back. Flat panels or a seam do more for it."}{" "}
              How firmly it is filled is set with the gauge.
            </p>
          </>
        )}
      </Dialog>
    </>
  );
}

function saidOf(way: Remedy, at: number): string {
  if (way.threads.length) return `${way.threads.length} threads sewn through`;
  return at === 0 ? "rounds alone" : "soft filling";
}
