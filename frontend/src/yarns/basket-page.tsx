/** The yarn basket: what she has, and what she measured. */
import { Pencil, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { sentence } from "../api/client";
import { Button, Empty, IconButton, Panel } from "../ui/controls";
import { Confirm, Explained, useSay } from "../ui/overlays";
import { rounded } from "../ui/units";
import { useBasket, useChangeBasket, type Yarn } from "./basket";
import { SampleDialog, YarnDialog } from "./forms";

export function BasketPage() {
  const basket = useBasket();
  const change = useChangeBasket();
  const say = useSay();
  const [yarn, setYarn] = useState<Yarn | null | "new">(null);
  const [sampling, setSampling] = useState(false);
  const refused = { onError: (e: unknown) => say(sentence(e), true) };
  if (!basket.data)
    return (
      <main id="main" tabIndex={-1} className="outline-none p-8" role="status">
        {basket.error ? sentence(basket.error) : "Opening the basket …"}
      </main>
    );
  const { yarns, samples, classes } = basket.data;
  return (
    <main id="main" tabIndex={-1} className="outline-none min-h-0 flex-1 overflow-auto">
      <div className="mx-auto grid w-full max-w-6xl gap-5 p-6 lg:grid-cols-[3fr_2fr]">
        <h1 className="text-3xl lg:col-span-2">Yarn basket</h1>
        <Panel
          title="Yarns"
          aside={
            <Button onClick={() => setYarn("new")}>
              <Plus size={16} /> Yarn
            </Button>
          }
        >
          {!yarns.length && (
            <Empty title="No yarn yet">
              <p>
                Put in one with its weight class, and metres can be reckoned. Wraps per inch make it surer.
              </p>
            </Empty>
          )}
          <ul className="grid gap-2 sm:grid-cols-2">
            {yarns.map((y) => (
              <li key={y.id} className="flex items-center gap-3 rounded-md border border-line bg-ground p-2">
                <span
                  className="size-10 shrink-0 rounded-full border-2 border-ink/70"
                  style={{ background: y.colour }}
                  aria-hidden="true"
                />
                <div className="min-w-0 flex-1">
                  <div className="truncate font-semibold">{y.name}</div>
                  <div className="text-sm text-soft">
                    {classes[y.weight]?.name} ({y.weight}),{" "}
                    <Explained
                      why={y.wraps ? `from ${y.wraps} wraps per inch` : "from the weight class alone"}
                    >
                      {rounded(y.diameter_mm, 1)} mm thick
                    </Explained>
                  </div>
                  <div className="text-sm text-soft">
                    {y.skein_m
                      ? `${y.skein_m} m${y.skein_g ? ` / ${y.skein_g} g` : ""}`
                      : "length of a skein not known"}
                  </div>
                </div>
                <IconButton label={`Change ${y.name}`} onClick={() => setYarn(y)}>
                  <Pencil size={16} />
                </IconButton>
                <Confirm
                  trigger={
                    <IconButton label={`Remove ${y.name}`}>
                      <Trash2 size={16} />
                    </IconButton>
                  }
                  title={`Take ${y.name} out?`}
                  about="Its swatches go too. Designs keep their own copy of the yarn."
                  yes="Take it out"
                  onYes={() => change.mutate({ do: "remove", id: y.id }, refused)}
                />
              </li>
            ))}
          </ul>
        </Panel>
        <Panel
          title="Swatches"
          aside={
            <Button onClick={() => setSampling(true)} disabled={!yarns.length}>
              <Plus size={16} /> Swatch
            </Button>
          }
        >
          {!samples.length && (
            <p className="text-soft">
              A swatch replaces every estimate: measure a stuffed piece, or a flat one.
            </p>
          )}
          <ul className="flex flex-col gap-2">
            {samples.map((s) => (
              <li
                key={s.id}
                className="flex items-center justify-between gap-2 rounded-md border border-line bg-ground p-2"
              >
                <div>
                  <div className="font-semibold">
                    {s.yarn_name}, {s.hook_mm} mm
                  </div>
                  <div className="text-sm">
                    <Explained why={s.gauge.how}>
                      stitch {s.gauge.stitch_mm.toFixed(2)} mm, round {s.gauge.round_mm.toFixed(2)} mm
                    </Explained>
                    , lean {s.gauge.lean.toFixed(2)}
                  </div>
                </div>
                <Confirm
                  trigger={
                    <IconButton label={`Throw away the swatch of ${s.yarn_name}`}>
                      <Trash2 size={16} />
                    </IconButton>
                  }
                  title="Throw this swatch away?"
                  about="Designs that use it keep their gauge."
                  yes="Throw it away"
                  onYes={() => change.mutate({ do: "remove-sample", id: s.id }, refused)}
                />
              </li>
            ))}
          </ul>
        </Panel>
        {yarn && (
          <YarnDialog
            key={yarn === "new" ? "new" : yarn.id}
            yarn={yarn === "new" ? null : yarn}
            basket={basket.data}
            open
            onOpen={() => setYarn(null)}
          />
        )}
        {sampling && <SampleDialog basket={basket.data} open onOpen={setSampling} />}
      </div>
    </main>
  );
}
