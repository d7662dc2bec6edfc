/** The figure at a size, all of them drawn in one measure, with a ruler beside the first. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import type { Design } from "../design/design";
import type { Entry } from "./asking";

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

export function SizePicture({
  design,
  entry,
  name,
  scale,
}: {
  design: Design;
  /** The size; null for the figure as it is. */
  entry: Entry | null;
  name: string;
  /** Pixels of a millimetre; null for one that stands alone, as large as there is room for. */
  scale: number | null;
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
  const measure = data ? measureOf(data.svg) : null;
  const px = scale ?? TALLEST_PX / (measure?.height ?? TALLEST_PX);
  return (
    <div className="flex items-end" style={{ height: TALLEST_PX + 8 }}>
      {data && measure && (
        <img
          alt={`${design.name}, ${name}, from the front`}
          src={`data:image/svg+xml;utf8,${encodeURIComponent(data.svg)}`}
          style={{ width: measure.width * px, height: measure.height * px }}
          className="max-w-none"
        />
      )}
    </div>
  );
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
