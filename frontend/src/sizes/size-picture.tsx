/** The figure at a size, all of them drawn in one measure, with a ruler beside the first. */
import { skipToken, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas, sentence } from "../api/client";
import type { Design } from "../design/design";
import { Button } from "../ui/controls";
import { cm } from "../ui/units";
import type { Entry } from "./asking";

type Settled = Schemas["SettledSize"];

/** How often a size that settles is looked at. */
const LOOK_MS = 1200;

/** By how much proportions may change before it is said. */
const TOLD_PER_CENT = 5;

/** Height on screen of the tallest figure. */
const TALLEST_PX = 190;
const MARGIN_MM = 6;

/** Width and height in mm of a drawn figure, its margin included. */
export function measureOf(svg: string): { width: number; height: number } | null {
  const box = /viewBox="[-\d.]+ [-\d.]+ ([\d.]+) ([\d.]+)"/.exec(svg);
  return box ? { width: Number(box[1]), height: Number(box[2]) } : null;
}

/** How many pixels a millimetre has when the tallest of these figures fits. */
export function pxPerMm(heights: readonly number[]): number {
  return TALLEST_PX / (Math.max(...heights, 10) + 2 * MARGIN_MM);
}

/** The figure of a size settled, asked for until it is; undefined while it is not asked for. */
function useSettled(design: Design, entry: Entry | null, asked: boolean) {
  return useQuery({
    queryKey: ["figure", design.id, "size-settled", design.revision, entry],
    queryFn: asked
      ? () =>
          answer<Settled>(
            api.POST("/api/designs/{design_id}/sizes/settle", {
              params: { path: { design_id: design.id } },
              body: { sizes: entry ? [entry] : [] },
            }),
          )
      : skipToken,
    refetchInterval: ({ state }) => (state.data?.under_way ? LOOK_MS : false),
    retry: false,
  });
}

export function SizePicture({
  design,
  entry,
  name,
  scale,
  settle = false,
  onMeet,
}: {
  design: Design;
  /** The size; null for the figure as it is. */
  entry: Entry | null;
  name: string;
  /** Pixels of a millimetre; null for one that stands alone, as large as there is room for. */
  scale: number | null;
  /** Have it settled, and show it so. */
  settle?: boolean;
  /** Have its height or girth met as it settles, by estimating it larger by this share. */
  onMeet?: (share: number) => void;
}) {
  const { data } = useQuery({
    queryKey: ["figure", design.id, "size-picture", design.revision, entry],
    queryFn: () =>
      answer<Schemas["SizePicture"]>(
        api.POST("/api/designs/{design_id}/sizes/picture", {
          params: { path: { design_id: design.id } },
          body: { sizes: entry ? [entry] : [] },
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
  const settled = useSettled(design, entry, settle);
  const svg = settled.data?.svg ?? data?.svg;
  const measure = svg ? measureOf(svg) : null;
  const meets = settle ? settled.data?.meets : null;
  const px = scale ?? TALLEST_PX / (measure?.height ?? TALLEST_PX);
  return (
    <>
      <div className="flex items-end" style={{ height: TALLEST_PX + 8 }}>
        {svg && measure && (
          <img
            alt={`${design.name}, ${name}, ${settled.data?.svg ? "settled, " : ""}from the front`}
            src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
            style={{ width: measure.width * px, height: measure.height * px }}
            className="max-w-none"
          />
        )}
      </div>
      {settle && (
        <p className="text-sm text-soft" aria-live="polite">
          {settled.error ? sentence(settled.error) : settledSaid(settled.data)}
        </p>
      )}
      {settle && !!settled.data?.told.length && (
        <ul className="flex list-disc flex-col gap-1 pl-4 text-sm text-soft">
          {settled.data.told.map((said) => (
            <li key={said}>{said}</li>
          ))}
        </ul>
      )}
      {meets && onMeet && (
        <Button onClick={() => onMeet(meets.share)}>
          Make {meets.part ?? "it"} settle to {cm(meets.mm)}
          {meets.around && " around"}
        </Button>
      )}
    </>
  );
}

/** How far a size is settled, or what it settled to. */
export function settledSaid(found: Settled | undefined): string {
  if (!found) return "Settling…";
  if (found.under_way)
    return `Settling: ${found.under_way} ${found.under_way === 1 ? "part" : "parts"} to go.`;
  if (!found.whole || found.height_mm === null || found.width_mm === null)
    return "Not all of it can be settled: a part has faults, or is not joined.";
  const size = `Settled: ${cm(found.height_mm)} tall, ${cm(found.width_mm)} wide.`;
  const off = Math.round(Math.abs(found.proportion ?? 0) * 100);
  if (found.proportion === null || off < TOLD_PER_CENT) return size;
  return `${size} ${off} % ${found.proportion > 0 ? "slimmer" : "stouter"} than the first.`;
}

/** A ruler in centimetres, in the measure of the pictures. */
export function Ruler({ scale }: { scale: number }) {
  const cms = Math.max(1, Math.floor((TALLEST_PX / scale - MARGIN_MM) / 10));
  const every = cms > 20 ? 5 : cms > 8 ? 2 : 1;
  const foot = TALLEST_PX + 8 - MARGIN_MM * scale;
  return (
    <svg
      width="34"
      height={TALLEST_PX + 8}
      role="img"
      aria-label={`A ruler of ${cms} centimetres`}
      className="shrink-0 text-soft"
    >
      {Array.from({ length: cms + 1 }, (_, cm) => cm).map((cm) => (
        <g key={cm}>
          <line
            x1={cm % every ? 6 : 0}
            x2="12"
            y1={foot - cm * 10 * scale}
            y2={foot - cm * 10 * scale}
            stroke="currentColor"
          />
          {cm % every === 0 && (
            <text x="15" y={foot - cm * 10 * scale + 4} fontSize="11" fill="currentColor">
              {cm}
            </text>
          )}
        </g>
      ))}
      <line x1="12" x2="12" y1={foot - cms * 10 * scale} y2={foot} stroke="currentColor" />
    </svg>
  );
}
