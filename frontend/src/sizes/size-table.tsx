/** The sizes side by side: every part, its materials and its work, and making one of them a design. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas, sentence } from "../api/client";
import type { Design } from "../design/design";
import { Silhouette } from "../figure/silhouette";
import { Button, IconButton } from "../ui/controls";
import { Explained, Guess, useSay } from "../ui/overlays";
import { cm, inches, rounded } from "../ui/units";
import type { Entry } from "./asking";
import { Report } from "./report";
import { pxPerMm, Ruler, SizePicture } from "./size-picture";
import { SizeRounds } from "./size-rounds";

type Column = Schemas["SizeColumn"];

/** That a length is no estimate. */
function Measured({ makers }: { makers: number }) {
  return makers > 0 && <span className="block text-sm text-soft">as {makers} makings measured</span>;
}

function Row({
  name,
  columns,
  children,
}: {
  name: string;
  columns: readonly Column[];
  children: (column: Column) => ReactNode;
}) {
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="sticky left-0 z-10 bg-ground py-2 pr-3 text-left font-semibold">
        {name}
      </th>
      {columns.map((c) => (
        <td key={c.key} className="px-3 py-2">
          {c.problem ? "" : children(c)}
        </td>
      ))}
    </tr>
  );
}

function Heads({ columns, onRemove }: { columns: readonly Column[]; onRemove: (key: string) => void }) {
  return (
    <thead>
      <tr className="align-bottom">
        <th scope="col" className="sticky left-0 z-10 bg-ground">
          <span className="sr-only">What</span>
        </th>
        {columns.map((c) => (
          <th key={c.key} scope="col" className="min-w-52 px-3 pb-2 text-left">
            <span className="flex items-center justify-between gap-2 font-title text-lg">
              {c.name}
              {c.kind !== "base" && (
                <IconButton label={`Remove the size ${c.name}`} onClick={() => onRemove(c.key)}>
                  <X size={16} />
                </IconButton>
              )}
            </span>
            {c.problem && (
              <span className="block border-l-4 border-madder bg-madder-ground px-2 py-1 font-normal">
                {c.problem}
              </span>
            )}
          </th>
        ))}
      </tr>
    </thead>
  );
}

function Yarns({ column }: { column: Column }) {
  return (
    <ul>
      {column.yarns.map((y) => (
        <li key={y.colour}>
          {y.colour}: <Guess of={y.metres} format={(m) => `${rounded(m)} m`} />
          {y.grams && (
            <>
              , <Guess of={y.grams} format={(g) => `${rounded(g)} g`} />
            </>
          )}
          {y.skeins ? `, ${y.skeins} ${y.skeins === 1 ? "skein" : "skeins"}` : ""}
          <LeftOf use={y} />
        </li>
      ))}
    </ul>
  );
}

const ENOUGH = {
  yes: ["border-moss bg-moss-ground", "that does"],
  maybe: ["border-weld bg-weld-ground", "that may just do"],
  no: ["border-madder bg-madder-ground", "that does not do"],
} as const;

/** What is left of a yarn in the basket, and whether it does. */
function LeftOf({ use }: { use: Column["yarns"][number] }) {
  if (use.left_g == null || !use.enough) return null;
  const [look, said] = ENOUGH[use.enough];
  return (
    <span className={`mt-0.5 mb-1 block w-fit border-l-4 px-1 text-sm ${look}`}>
      {rounded(use.left_g)} g left: {said}
    </span>
  );
}

function Materials({ columns }: { columns: readonly Column[] }) {
  return (
    <>
      <Row name="Gauge" columns={columns}>
        {(c) => (
          <Explained why={c.gauge.how}>
            {c.gauge.stitch_mm.toFixed(1)} × {c.gauge.round_mm.toFixed(1)} mm
          </Explained>
        )}
      </Row>
      <Row name="Fabric" columns={columns}>
        {(c) => c.fabric ?? "yarn and hook not chosen"}
      </Row>
      <Row name="Eyes" columns={columns}>
        {(c) =>
          c.eye_mm ? (
            <Explained why="in proportion, to the nearest that is sold">{c.eye_mm} mm</Explained>
          ) : (
            "none"
          )
        }
      </Row>
      <Row name="Yarn" columns={columns}>
        {(c) => <Yarns column={c} />}
      </Row>
      <Row name="Filling" columns={columns}>
        {(c) => <Guess of={c.filling_g} format={(g) => `${rounded(g)} g`} />}
      </Row>
      <Row name="Work" columns={columns}>
        {(c) => <Guess of={c.hours} format={(h) => `${rounded(h, 1)} h`} />}
      </Row>
    </>
  );
}

export function SizeTable({
  design,
  columns,
  entries,
  settle,
  flush,
  onRemove,
  onMeet,
}: {
  design: Design;
  columns: Column[];
  entries: Entry[];
  /** Have every size settled, and show it so. */
  settle: boolean;
  /** Save what is being typed first. */
  flush: () => Promise<void>;
  onRemove: (key: string) => void;
  /** Have a size's height met as it settles. */
  onMeet: (key: string, share: number) => void;
}) {
  const scale = pxPerMm(columns.map((c) => c.height.value));
  const widest = Math.max(...columns.flatMap((c) => c.parts.map((p) => p.width.value)), 1);
  return (
    <table className="min-w-full border-collapse">
      <Heads columns={columns} onRemove={onRemove} />
      <tbody>
        <tr className="align-bottom">
          <th scope="row" className="sticky left-0 z-10 bg-ground pr-3 text-left">
            <span className="flex items-end justify-between gap-2">
              <span className="pb-2 text-sm font-normal text-soft">
                Beside a ruler, in cm; {settle ? "settled where it says so" : "as estimated"}
              </span>
              <Ruler scale={scale} />
            </span>
          </th>
          {columns.map((c) => (
            <td key={c.key} className="px-3">
              {!c.problem && (
                <SizePicture
                  design={design}
                  entry={entries.find((e) => e.key === c.key) ?? null}
                  name={c.name}
                  scale={scale}
                  settle={settle}
                  onMeet={(share) => onMeet(c.key, share)}
                />
              )}
            </td>
          ))}
        </tr>
        <Row name="Whole figure" columns={columns}>
          {(c) => (
            <>
              <Guess of={c.height} format={cm} /> ({inches(c.height.value)}) tall
              <Measured makers={c.height_makers} />
              <br />
              <Guess of={c.width} format={cm} /> wide
              <Measured makers={c.width_makers} />
              {c.kind === "base" && design.brief.height_mm && (
                <span className="block text-sm text-soft">
                  {cm(design.brief.height_mm)} wished in the brief
                </span>
              )}
            </>
          )}
        </Row>
        {design.parts.map((part) => (
          <PartRow
            key={part.key}
            columns={columns}
            part={part.key}
            name={part.name}
            make={part.make}
            widest={widest}
          />
        ))}
        <Materials columns={columns} />
        <Row name="What became of it" columns={columns}>
          {(c) => <Report column={c} />}
        </Row>
        <Row name="Rounds" columns={columns}>
          {(c) => c.kind !== "base" && c.kind !== "yarn" && <SizeRounds column={c} base={columns[0]} />}
        </Row>
        <tr className="border-t border-line">
          <th scope="row" className="sticky left-0 bg-ground">
            <span className="sr-only">Make it a design</span>
          </th>
          {columns.map((c) => (
            <td key={c.key} className="px-3 py-2">
              {c.kind !== "base" && !c.problem && <MakeSize design={design} column={c} flush={flush} />}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}

function PartRow({
  columns,
  part,
  name,
  make,
  widest,
}: {
  columns: Column[];
  part: string;
  name: string;
  make: number;
  widest: number;
}) {
  const base = columns[0]?.parts.find((p) => p.key === part);
  const HOW = {
    "same counts": "same counts",
    drafted: "drafted again from its shape",
    resampled: "made anew from its own rounds",
    "not sized": "stays as it is",
  };
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="sticky left-0 z-10 bg-ground py-2 pr-3 text-left font-semibold">
        {name}
        {make > 1 && ` × ${make}`}
      </th>
      {columns.map((c) => {
        const p = c.parts.find((other) => other.key === part);
        if (!p) return <td key={c.key} />;
        return (
          <td key={c.key} className="px-3 py-2">
            <div className="flex gap-3">
              <Silhouette
                counts={p.counts}
                width={p.width.value}
                height={p.height.value}
                widest={widest}
                label={`${name}, ${p.rounds} rounds`}
              />
              <div>
                {p.rounds} rounds, widest {Math.max(...p.counts)}
                <br />
                <Guess of={p.height} format={cm} /> × <Guess of={p.width} format={cm} />
                <br />
                <span className="text-sm text-soft">
                  {c.kind === "base" || p.counts === base?.counts ? "" : HOW[p.how]}
                </span>
              </div>
            </div>
          </td>
        );
      })}
    </tr>
  );
}

function MakeSize({ design, column, flush }: { design: Design; column: Column; flush: () => Promise<void> }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const say = useSay();
  const make = useMutation({
    mutationFn: async () => {
      await flush();
      return answer<Design>(
        api.POST("/api/designs/{design_id}/sizes/{key}/make", {
          params: { path: { design_id: design.id, key: column.key } },
        }),
      );
    },
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["shelf"] });
      say(`${made.name} is a design of its own now.`);
      navigate(`/designs/${made.id}/rounds`);
    },
    onError: (e) => say(sentence(e), true),
  });
  return (
    <Button onClick={() => make.mutate()} disabled={make.isPending}>
      Make it a design
    </Button>
  );
}
