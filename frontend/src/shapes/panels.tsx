/** A boxy shape worked as flat panels in rows: laid out with their joins, sewn together, added as parts. */

import { useMutation } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answer, api, type Schemas, sentence } from "../api/client";
import { type Design, useAct } from "../design/design";
import { unpackFitted } from "../figure/settled";
import { SettledFigure } from "../figure/views";
import { Button } from "../ui/controls";
import { JobBar } from "../ui/job-bar";
import { Dialog, useSay } from "../ui/overlays";
import { rounded } from "../ui/units";
import { PanelNet } from "./panel-net";
import { useWorked } from "./work";

type Filling = "stuffed" | "inlaid";
const FILLINGS: readonly Filling[] = ["stuffed", "inlaid"];
const SAID = { stuffed: "stuffed", inlaid: "over stiff inlays" };

export function FlatPanels({
  design,
  question,
  palette,
  onMade,
}: {
  design: Design;
  question: Schemas["ShapeIn"];
  palette: Record<string, string>;
  onMade: (key: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const act = useAct(design.id);
  const say = useSay();
  const cut = useMutation({
    mutationFn: () => answer<Schemas["PanelsOut"]>(api.POST("/api/shapes/panels", { body: question })),
  });
  const sewn = useWorked("sewn");
  const show = (on: boolean) => {
    setOpen(on);
    if (!on) return sewn.stop();
    cut.mutate(undefined, { onSuccess: () => sewn.start(question) });
  };
  const add = useMutation({
    mutationFn: (parts: Schemas["PanelPartOut"][]) =>
      act.mutateAsync({
        do: "add-parts",
        parts: parts.map(({ name, make, text, recipe }) => ({ name, make, text, recipe })),
      }),
    onSuccess: (made, parts) => {
      say(`${parts.length === 1 ? "One part is" : `${parts.length} parts are`} there, worked in rows.`);
      setOpen(false);
      onMade(made.parts.at(-parts.length)?.key ?? "");
    },
  });
  const panels = cut.data ?? null;
  return (
    <div className="mt-2">
      <Button weight="quiet" className="px-2 py-0.5 text-sm" onClick={() => show(true)}>
        Work it as flat panels
      </Button>
      <Dialog open={open} onOpen={show} title="Flat panels" wide>
        {cut.isPending && <p role="status">Cutting the shape along its bends …</p>}
        {cut.error && <p role="alert">{sentence(cut.error)}</p>}
        {panels && (
          <div className="grid gap-4 md:grid-cols-[1fr_20rem]">
            <div>
              <PanelNet panels={panels} />
              <p className="mt-1 text-sm text-soft">
                Letters name the seams, numbers the stitches between two corners; both sides of a seam have
                the same.
              </p>
              <Parts parts={panels.parts} />
              {panels.too_round.length > 0 && (
                <p className="text-sm">
                  {panels.too_round.join(", ")}: rounder than a panel likes to be. Rounds would follow this
                  shape better.
                </p>
              )}
            </div>
            <Sewn job={sewn} palette={palette} />
          </div>
        )}
        {panels && (
          <div className="mt-3 flex items-center gap-3">
            <Button weight="main" disabled={add.isPending} onClick={() => add.mutate(panels.parts)}>
              {add.isPending ? "Adding …" : "Add the panels as parts"}
            </Button>
            {add.error && (
              <span role="alert" className="text-sm">
                {sentence(add.error)}
              </span>
            )}
          </div>
        )}
      </Dialog>
    </div>
  );
}

function Parts({ parts }: { parts: Schemas["PanelPartOut"][] }) {
  return (
    <ul className="mt-2 text-sm">
      {parts.map((part) => (
        <li key={part.name}>
          <details>
            <summary>
              <strong className="font-semibold">{part.name}</strong>
              {part.make > 1 && ` × ${part.make}`}: {part.rows} rows and an edging, {part.stitches} stitches
              {part.make > 1 && " each"}
            </summary>
            <pre className="overflow-auto whitespace-pre-wrap py-1 font-mono text-sm">{part.text}</pre>
          </details>
        </li>
      ))}
    </ul>
  );
}

function Sewn({
  job,
  palette,
}: {
  job: ReturnType<typeof useWorked<"sewn">>;
  palette: Record<string, string>;
}) {
  const [filling, setFilling] = useState<Filling>("stuffed");
  const got = job.got;
  const settled = useMemo(() => (got ? unpackFitted(got[filling]) : null), [got, filling]);
  if (job.error) return <p role="alert">{sentence(job.error)}</p>;
  if (!got || !settled)
    return (
      <JobBar name="Sewing together" way={job.way ?? { percent: 0, ahead: null }}>
        Sewing the panels together …
      </JobBar>
    );
  return (
    <div>
      <div className="h-72">
        <SettledFigure
          settled={settled}
          palette={palette}
          label={`The panels sewn together, ${SAID[filling]}`}
        />
      </div>
      <div role="radiogroup" aria-label="Filling" className="grid gap-1 text-sm">
        {FILLINGS.map((name) => {
          const error = got[name].error;
          return (
            <label key={name} className="flex items-baseline gap-2">
              <input
                type="radio"
                name="filling"
                checked={filling === name}
                onChange={() => setFilling(name)}
                className="accent-woad"
              />
              <span>
                {SAID[name]}: {rounded(error.rms_mm, 1)} mm off, volume {Math.round(error.volume_ratio * 100)}{" "}
                %
              </span>
            </label>
          );
        })}
      </div>
      <p className="mt-1 text-sm text-soft">
        Filling alone makes a box round. Card, felt or foam cut to the panels keeps it boxy; card does not
        wash. Round off the corners of stiff inlays and sew them in securely; they are nothing for small
        children.
      </p>
    </div>
  );
}
