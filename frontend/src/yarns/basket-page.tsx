/** The yarn basket: what she has, and what she measured. */
import { Pencil, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { sentence } from "../api/client";
import { Button, Empty, IconButton, Panel } from "../ui/controls";
import { Confirm, Explained, useSay } from "../ui/overlays";
import { rounded } from "../ui/units";
import { type Basket, useBasket, useChangeBasket, type Yarn } from "./basket";
import { SwatchDialog, YarnDialog } from "./forms";

export function BasketPage() {
  const basket = useBasket();
  if (!basket.data)
    return (
      <main id="main" tabIndex={-1} className="outline-none p-8">
        <h1 className="sr-only">Yarn basket</h1>
        <p role="status">{basket.error ? sentence(basket.error) : "Opening the basket …"}</p>
      </main>
    );
  return (
    <main id="main" tabIndex={-1} className="outline-none min-h-0 flex-1 overflow-auto">
      <div className="mx-auto grid w-full max-w-6xl gap-5 p-6 lg:grid-cols-[3fr_2fr]">
        <h1 className="text-3xl lg:col-span-2">Yarn basket</h1>
        <Yarns basket={basket.data} />
        <Swatches basket={basket.data} />
      </div>
    </main>
  );
}

function useRemoving() {
  const change = useChangeBasket();
  const say = useSay();
  return (what: Parameters<typeof change.mutate>[0]) =>
    change.mutate(what, { onError: (e) => say(sentence(e), true) });
}

function Yarns({ basket }: { basket: Basket }) {
  const [open, setOpen] = useState<Yarn | null | "new">(null);
  return (
    <Panel
      title="Yarns"
      aside={
        <Button onClick={() => setOpen("new")}>
          <Plus size={16} /> Yarn
        </Button>
      }
    >
      {!basket.yarns.length && (
        <Empty title="No yarn yet">
          <p>Put in one with its weight class, and metres can be reckoned. Wraps per inch make it surer.</p>
        </Empty>
      )}
      <ul className="grid gap-2 sm:grid-cols-2">
        {basket.yarns.map((y) => (
          <YarnRow key={y.id} yarn={y} of={basket.classes[y.weight]?.name} onChange={() => setOpen(y)} />
        ))}
      </ul>
      {open && (
        <YarnDialog
          key={open === "new" ? "new" : open.id}
          yarn={open === "new" ? null : open}
          basket={basket}
          open
          onOpen={() => setOpen(null)}
        />
      )}
    </Panel>
  );
}

function YarnRow({
  yarn,
  of,
  onChange,
}: {
  yarn: Yarn;
  /** Its weight class by name. */
  of: string | undefined;
  onChange: () => void;
}) {
  const remove = useRemoving();
  return (
    <li className="flex items-center gap-3 rounded-md border border-line bg-ground p-2">
      <span
        className="size-10 shrink-0 rounded-full border-2 border-ink/70"
        style={{ background: yarn.colour }}
        aria-hidden="true"
      />
      <div className="min-w-0 flex-1">
        <div className="truncate font-semibold">{yarn.name}</div>
        <div className="text-sm text-soft">
          {of} ({yarn.weight}),{" "}
          <Explained why={yarn.wraps ? `from ${yarn.wraps} wraps per inch` : "from the weight class alone"}>
            {rounded(yarn.diameter_mm, 1)} mm thick
          </Explained>
        </div>
        <div className="text-sm text-soft">
          {yarn.skein_m
            ? `${yarn.skein_m} m${yarn.skein_g ? ` / ${yarn.skein_g} g` : ""}`
            : "length of a skein not known"}
        </div>
        {yarn.left_g != null && <div className="text-sm">{rounded(yarn.left_g)} g left</div>}
      </div>
      <IconButton label={`Change ${yarn.name}`} onClick={onChange}>
        <Pencil size={16} />
      </IconButton>
      <Confirm
        trigger={
          <IconButton label={`Remove ${yarn.name}`}>
            <Trash2 size={16} />
          </IconButton>
        }
        title={`Take ${yarn.name} out?`}
        about="Its swatches go too. Designs keep their own copy of the yarn."
        yes="Take it out"
        onYes={() => remove({ do: "remove", id: yarn.id })}
      />
    </li>
  );
}

function Swatches({ basket }: { basket: Basket }) {
  const [open, setOpen] = useState(false);
  return (
    <Panel
      title="Swatches"
      aside={
        <Button onClick={() => setOpen(true)} disabled={!basket.yarns.length}>
          <Plus size={16} /> Swatch
        </Button>
      }
    >
      {!basket.swatches.length && (
        <p className="text-soft">A swatch replaces every estimate: measure a stuffed piece, or a flat one.</p>
      )}
      <ul className="flex flex-col gap-2">
        {basket.swatches.map((s) => (
          <SwatchRow key={s.id} swatch={s} />
        ))}
      </ul>
      {open && <SwatchDialog basket={basket} open onOpen={setOpen} />}
    </Panel>
  );
}

function SwatchRow({ swatch }: { swatch: Basket["swatches"][number] }) {
  const remove = useRemoving();
  const { gauge } = swatch;
  return (
    <li className="flex items-center justify-between gap-2 rounded-md border border-line bg-ground p-2">
      <div>
        <div className="font-semibold">
          {swatch.yarn_name}, {swatch.hook_mm} mm
        </div>
        <div className="text-sm">
          <Explained why={gauge.how}>
            stitch {gauge.stitch_mm.toFixed(2)} mm, round {gauge.round_mm.toFixed(2)} mm
          </Explained>
          , lean {gauge.lean.toFixed(2)}
        </div>
        {swatch.doubt && (
          <p className="mt-1 border-l-4 border-weld bg-weld-ground px-2 py-0.5 text-sm">{swatch.doubt}</p>
        )}
      </div>
      <Confirm
        trigger={
          <IconButton label={`Throw away the swatch of ${swatch.yarn_name}`}>
            <Trash2 size={16} />
          </IconButton>
        }
        title="Throw this swatch away?"
        about="Designs that use it keep their gauge."
        yes="Throw it away"
        onYes={() => remove({ do: "remove-swatch", id: swatch.id })}
      />
    </li>
  );
}
