/** What her studio holds, where it is open, and leaving it. */
import { sentence } from "../api/client";
import { Button } from "../ui/controls";
import { FormError, useSentForm } from "../ui/form";
import { useSay } from "../ui/overlays";
import { PasswordField } from "./password-field";
import { type StudioState, useStudio, useStudioChange } from "./use-studio";

const day = (iso: string) =>
  new Date(iso).toLocaleDateString(undefined, { day: "numeric", month: "long", year: "numeric" });

function Waiting({ error }: { error: Error | null }) {
  if (error) return <p role="alert">{sentence(error)}</p>;
  return <p role="status">Looking …</p>;
}

export function Held() {
  const { data, error } = useStudio();
  if (!data) return <Waiting error={error} />;
  return (
    <div className="flex flex-col gap-4">
      <ul className="flex flex-col gap-3">
        {data.holdings.map((one) => (
          <Holding key={one.name} one={one} />
        ))}
      </ul>
      <div className="border-t border-line pt-4">
        <h3 className="text-lg">Take everything along</h3>
        <p className="mb-2">
          One archive with every design in its open format and as text, all pictures, logs, tests and letters.
          It is read without Spirrel.
        </p>
        <Button asChild>
          <a href="/api/studio/everything.zip" download>
            Save everything as a file
          </a>
        </Button>
      </div>
    </div>
  );
}

function Holding({ one }: { one: StudioState["holdings"][number] }) {
  const share = one.used / one.most;
  const unit = one.unit ? ` ${one.unit}` : "";
  const name = `${one.name}: ${one.used.toLocaleString()} of ${one.most.toLocaleString()}${unit}`;
  return (
    <li>
      <div className="flex justify-between gap-4">
        <span>{one.name}</span>
        <span className="text-soft tabular-nums">
          {one.used.toLocaleString()} of {one.most.toLocaleString()}
          {unit}
        </span>
      </div>
      <meter
        className="h-1.5 w-full"
        min={0}
        max={one.most}
        high={one.most * 0.9}
        value={one.used}
        aria-label={name}
      />
      {share > 0.9 && <p className="border-l-4 border-weld bg-weld-ground px-2 py-0.5 text-sm">{one.full}</p>}
    </li>
  );
}

export function OpenAt() {
  const { data, error } = useStudio();
  const change = useStudioChange();
  if (!data) return <Waiting error={error} />;
  const others = data.sessions.filter((one) => !one.here);
  return (
    <div className="flex flex-col gap-3">
      <ul className="flex flex-col divide-y divide-line">
        {data.sessions.map((one) => (
          <li key={one.id} className="flex items-center justify-between gap-3 py-1.5">
            <span>
              {one.device}
              <span className="block text-sm text-soft">
                {one.here ? "This one" : `Signed in until ${day(one.until)}`}
              </span>
            </span>
            {!one.here && (
              <Button
                aria-label={`Sign out ${one.device}`}
                disabled={change.isPending}
                onClick={() => change.mutate({ do: "end", id: one.id })}
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {others.length > 1 && (
        <Button className="self-start" onClick={() => change.mutate({ do: "end-others" })}>
          Sign out everywhere but here
        </Button>
      )}
      {others.length === 0 && <p className="text-soft">You are signed in nowhere else.</p>}
      {change.error && <p role="alert">{sentence(change.error)}</p>}
    </div>
  );
}

export function Leaving() {
  const { data, error } = useStudio();
  const change = useStudioChange();
  if (!data) return <Waiting error={error} />;
  if (data.leaves)
    return (
      <div className="flex flex-col gap-3">
        <p className="border-l-4 border-weld bg-weld-ground px-2 py-1">
          This studio closes on {day(data.leaves)}: then everything in it goes for good, with every link to
          it.
        </p>
        <Button weight="main" className="self-start" onClick={() => change.mutate({ do: "stay" })}>
          Stay after all
        </Button>
      </div>
    );
  return <Leave />;
}

function Leave() {
  const change = useStudioChange();
  const say = useSay();
  const { form, refused } = useSentForm({ present: "" });
  const send = form.handleSubmit((value) =>
    change.mutate(
      { do: "leave", ...value },
      { onSuccess: () => say("The studio closes in two weeks."), onError: refused },
    ),
  );
  return (
    <form className="flex flex-col gap-3" onSubmit={send} noValidate>
      <p>
        Two weeks after you say so, everything in this studio goes for good: designs, pictures, makings, what
        testers wrote, and every link you gave. Until then you can stay after all. Save everything as a file
        first: you find it under “Room left”.
      </p>
      <PasswordField form={form} name="present" label="Your password" />
      <FormError form={form} />
      <Button type="submit" weight="danger" className="self-start" disabled={change.isPending}>
        Close the studio
      </Button>
    </form>
  );
}
