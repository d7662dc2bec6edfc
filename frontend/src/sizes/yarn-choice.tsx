/** The yarn of another size: one for the figure, and one for each colour that is worked in a yarn of its own. */
import { NumberField, SelectField } from "../ui/controls";
import type { Basket } from "../yarns/basket";
import type { Asked, RoleAsked } from "./asking";

type Choice = { basket: Basket | undefined; asked: Asked; set: (change: Partial<Asked>) => void };

export function YarnChoice({
  basket,
  roles,
  yarnId,
  onYarn,
  asked,
  set,
}: Choice & {
  /** Names of the figure's yarns but the main one. */
  roles: readonly string[];
  yarnId: string;
  onYarn: (id: string) => void;
}) {
  if (basket && !basket.yarns.length)
    return (
      <p className="col-span-2 border-l-4 border-weld bg-weld-ground px-2 py-1">
        The basket is empty: put a yarn in first.
      </p>
    );
  const first = String(basket?.yarns[0]?.id ?? "");
  return (
    <>
      <YarnFields
        label="Yarn"
        basket={basket}
        now={{ yarn: yarnId || first, hook: asked.hook, strands: asked.strands, second: asked.second }}
        onChange={({ yarn, ...change }) => {
          if (yarn !== undefined) onYarn(yarn);
          else set(change);
        }}
      />
      {roles.map((role) => (
        <RoleYarn key={role} role={role} basket={basket} asked={asked} set={set} />
      ))}
    </>
  );
}

/** A colour in the figure's new yarn, or in one of its own. */
function RoleYarn({ role, basket, asked, set }: Choice & { role: string }) {
  const now = asked.roles[role];
  const usual = { yarn: "", hook: asked.hook, strands: 1, second: "" };
  const change = (part: Partial<RoleAsked>) => {
    const next = { ...(now ?? usual), ...part };
    const { [role]: _, ...rest } = asked.roles;
    set({ roles: next.yarn ? { ...rest, [role]: next } : rest });
  };
  return (
    <fieldset className="col-span-2 grid grid-cols-2 gap-3 border-t border-line pt-2">
      <legend className="sr-only">{role}</legend>
      <YarnFields
        label={`${role} is worked in`}
        basket={basket}
        now={now ?? usual}
        onChange={change}
        none="the same yarn, in its colour"
      />
    </fieldset>
  );
}

function YarnFields({
  label,
  basket,
  now,
  onChange,
  none,
}: {
  label: string;
  basket: Basket | undefined;
  now: RoleAsked;
  onChange: (change: Partial<RoleAsked>) => void;
  /** What no yarn of its own is called, where that may be chosen. */
  none?: string;
}) {
  const yarns = basket?.yarns.map((y) => [String(y.id), y.name] as const) ?? [];
  const own = none === undefined || now.yarn !== "";
  return (
    <>
      <SelectField
        label={label}
        className={own ? "" : "col-span-2"}
        value={now.yarn}
        onValue={(yarn) => onChange({ yarn })}
        options={none === undefined ? yarns : [["", none], ...yarns]}
      />
      {own && (
        <>
          <SelectField
            label="Hook"
            value={now.hook}
            onValue={(hook) => onChange({ hook })}
            options={basket?.hooks.map((h) => [String(h.mm), h.name] as const) ?? []}
          />
          <NumberField
            label="Strands together"
            least={1}
            most={6}
            value={now.strands}
            onValue={(n) => onChange({ strands: n ?? 1 })}
          />
          <SelectField
            label="With a strand of"
            value={now.second}
            onValue={(second) => onChange({ second })}
            options={[["", "nothing else"], ...yarns]}
          />
        </>
      )}
    </>
  );
}
