/** Parts that are not worked as the figure is: each on a hook of its own, with the gauge that comes of it. */
import { X } from "lucide-react";
import { useState } from "react";
import { type Design, type Part, useAct } from "../design/design";
import { IconButton, NumberField, SelectField } from "../ui/controls";
import type { Basket } from "../yarns/basket";

type Hooks = Basket["hooks"];

export function OwnHooks({ design, hooks }: { design: Design; hooks: Hooks }) {
  const own = design.parts.filter((p) => p.own_hook);
  const yarns = design.gauge.yarns ?? [];
  return (
    <div className="flex flex-col gap-3">
      <p className="max-w-prose text-soft">
        Small parts in a finer yarn, or tighter ones in the same. Their stitches are reckoned by the yarn they
        begin with: by your swatch of it on that hook, else by an estimate, corrected as your fabric differs
        from its own.
      </p>
      {own.length > 0 && (
        <ul className="flex flex-col gap-2">
          {own.map((part) => (
            <OwnHookRow key={part.key} design={design} part={part} hooks={hooks} />
          ))}
        </ul>
      )}
      {yarns.length ? (
        <GiveHook design={design} hooks={hooks} />
      ) : (
        <p>Choose the figure's yarn first: a hook says nothing without it.</p>
      )}
    </div>
  );
}

function OwnHookRow({ design, part, hooks }: { design: Design; part: Part; hooks: Hooks }) {
  const act = useAct(design.id);
  const hook = part.own_hook;
  if (!hook) return null;
  const measured = hook.stitch_mm != null;
  const set = (change: Partial<NonNullable<Part["own_hook"]>>) =>
    act.mutate({
      do: "own-hook",
      key: part.key,
      hook: { ...hook, stitch_mm: null, round_mm: null, ...change },
    });
  const { stitch_mm, round_mm, spread, how } = part.gauge;
  return (
    <li className="grid grid-cols-2 items-end gap-3 rounded-md border border-line bg-ground p-2 md:grid-cols-[1fr_9rem_7rem_2fr_auto]">
      <p className="col-span-2 min-w-0 self-center truncate font-semibold md:col-span-1">{part.name}</p>
      <SelectField
        label={`Hook of ${part.name}`}
        value={String(hook.hook_mm)}
        onValue={(mm) => set({ hook_mm: Number(mm) })}
        options={optionsOf(hooks, hook.hook_mm)}
      />
      <NumberField
        label="Strands"
        least={1}
        most={6}
        value={hook.strands ?? 1}
        onValue={(strands) => set({ strands: strands ?? 1 })}
      />
      <p className="col-span-2 self-center text-sm md:col-span-1">
        Stitches {measured ? "" : "about "}
        <b>{stitch_mm.toFixed(1)} mm</b> wide, rounds <b>{round_mm.toFixed(1)} mm</b> high, give or take{" "}
        {Math.round(spread * 100)} %: {how}
      </p>
      <div className="col-span-2 justify-self-end md:col-span-1">
        <IconButton
          label={`${part.name} as the figure`}
          onClick={() => act.mutate({ do: "own-hook", key: part.key, hook: null })}
        >
          <X size={16} />
        </IconButton>
      </div>
    </li>
  );
}

/** Hooks that are sold, and the one that is in use where it is none of them. */
function optionsOf(hooks: Hooks, used: number): (readonly [string, string])[] {
  const sold = hooks.map((h) => [String(h.mm), h.name] as const);
  return hooks.some((h) => h.mm === used) ? sold : [[String(used), `${used} mm`], ...sold];
}

function GiveHook({ design, hooks }: { design: Design; hooks: Hooks }) {
  const act = useAct(design.id);
  const [part, setPart] = useState("");
  const free = design.parts.filter((p) => !p.own_hook);
  if (!free.length) return null;
  const chosen = free.some((p) => p.key === part) ? part : "";
  return (
    <div className="grid max-w-xl grid-cols-2 gap-3">
      <SelectField
        label="Another part"
        value={chosen}
        onValue={setPart}
        options={[["", "choose a part"], ...free.map((p) => [p.key, p.name] as const)]}
      />
      {chosen && (
        <SelectField
          label="is worked on"
          value=""
          onValue={(mm) => {
            if (mm) act.mutate({ do: "own-hook", key: chosen, hook: { hook_mm: Number(mm), strands: 1 } });
          }}
          options={[["", "choose its hook"], ...hooks.map((h) => [String(h.mm), h.name] as const)]}
        />
      )}
    </div>
  );
}
