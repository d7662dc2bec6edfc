/** The round chart: the trade's own symbols, zoomable, for screen and print. */
import { Download, Minus, Plus, Printer } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { useLeftHanded } from "../accounts/session";
import { Button, Check, IconButton } from "../ui/controls";
import { askChart, type Question } from "./ask";

const LEAST = 0.25;
const MOST = 4;

export function ChartView({ asked, title }: { asked: Question; title: string }) {
  const [svg, setSvg] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const [zoom, setZoom] = useState(1);
  const [left, setLeft] = useState(useLeftHanded());
  const { text, design, colour, part } = asked;
  useEffect(() => {
    let gone = false;
    const wait = setTimeout(() => {
      askChart({ text, design, colour, part }, title, left)
        .then((drawn) => {
          if (!gone) {
            setSvg(drawn);
            setFailed(false);
          }
        })
        .catch(() => !gone && setFailed(true));
    }, 150);
    return () => {
      gone = true;
      clearTimeout(wait);
    };
  }, [text, design, colour, part, title, left]);
  const url = useMemo(
    () => (svg ? URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" })) : ""),
    [svg],
  );
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  const by = (factor: number) => setZoom((z) => Math.min(MOST, Math.max(LEAST, z * factor)));
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-1 border-b border-line px-2 py-1">
        <IconButton label="Smaller" onClick={() => by(0.8)} disabled={zoom <= LEAST}>
          <Minus size={16} />
        </IconButton>
        <button
          type="button"
          className="px-1 text-sm tabular-nums hover:underline"
          onClick={() => setZoom(1)}
        >
          {Math.round(zoom * 100)} %<span className="sr-only">: back to full size</span>
        </button>
        <IconButton label="Larger" onClick={() => by(1.25)} disabled={zoom >= MOST}>
          <Plus size={16} />
        </IconButton>
        <span className="flex-1" />
        <Check label="Left-handed" checked={left} onChecked={setLeft} />
        <IconButton label="Print the chart" onClick={() => printed(svg)} disabled={!svg}>
          <Printer size={16} />
        </IconButton>
        {url && (
          <Button weight="quiet" asChild className="px-1.5">
            <a href={url} download={`${title.replace(/\W+/g, "-").toLowerCase()}-chart.svg`}>
              <Download size={16} aria-hidden="true" />
              <span className="sr-only">Save the chart as SVG</span>
            </a>
          </Button>
        )}
      </div>
      <section
        tabIndex={0}
        aria-label={`Chart of ${title}`}
        className="min-h-0 flex-1 overflow-auto p-2"
        onKeyDown={(e) => {
          if (e.key === "+" || e.key === "=") by(1.25);
          else if (e.key === "-") by(0.8);
          else if (e.key === "0") setZoom(1);
        }}
      >
        {failed && (
          <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1">
            The chart could not be drawn just now. It comes back with the next change.
          </p>
        )}
        {url && (
          <img
            src={url}
            alt={`Round chart of ${title}; the written rounds say the same`}
            style={{ width: `${zoom * 100}%`, maxWidth: "none" }}
            className="mx-auto block rounded bg-white"
          />
        )}
      </section>
    </div>
  );
}

/** Print an SVG by itself, on a page of its own. */
function printed(svg: string | null): void {
  if (!svg) return;
  const frame = document.createElement("iframe");
  frame.title = "Chart to print";
  frame.className = "fixed size-0";
  document.body.append(frame);
  const page = frame.contentDocument;
  if (!page) return;
  page.body.innerHTML = svg;
  page.querySelector("svg")?.setAttribute("style", "width:100%;height:auto;max-height:26cm");
  frame.contentWindow?.addEventListener("afterprint", () => frame.remove());
  frame.contentWindow?.print();
}
