/** One step of the assembly: words, part, place, seat, and what is known about it. */
import { Crosshair } from "lucide-react";
import { useLeftHanded } from "../accounts/session";
import type { Design } from "../design/design";
import { Button, Check, Field, inputClass, NumberField, SelectField } from "../ui/controls";
import { cm } from "../ui/units";
import type { Step } from "./aim";
import { Bends } from "./bends";
import { type Move, Nudge } from "./nudge";
import type { Scene } from "./use-scene";

export type { Step };

type Place = Scene["steps"][number];

const SEATS = [
  ["", "as its edge suggests"],
  ["open", "open ring"],
  ["pinched", "pinched flat"],
  ["laid", "closed, laid on"],
  ["start", "by its start: upside down, or its first row"],
] as const;

const FIXINGS = [
  ["sewn", "sewn on"],
  ["snaps", "snaps, comes off"],
  ["hook-and-loop", "hook-and-loop, comes off"],
  ["slipped-on", "slipped on, comes off"],
] as const;

export type StepProps = {
  design: Design;
  step: Step;
  place: Place | undefined;
  set: (part: Partial<Step>) => void;
};

export function StepFields({
  aimed,
  onAim,
  onNoSew,
  onSew,
  ...of
}: StepProps & { aimed: boolean; onAim: () => void; onNoSew: () => void; onSew: () => void }) {
  const { step, place, set } = of;
  const sewn = Boolean(step.on) && !step.no_sew;
  const leftHanded = useLeftHanded();
  const host = of.design.parts.find((p) => p.key === step.on);
  return (
    <div className="flex flex-1 flex-col gap-2">
      <Field
        label="What to do"
        hint={!step.text && place?.said ? `Left empty, the booklet says: ${place.said}` : undefined}
      >
        {(ids) => (
          <input
            {...ids}
            className={inputClass}
            maxLength={500}
            placeholder={place?.said || "Sew the head to the top of the body."}
            value={step.text ?? ""}
            onChange={(e) => set({ text: e.target.value })}
          />
        )}
      </Field>
      <div className="grid grid-cols-2 gap-2 xl:grid-cols-4">
        <WhichParts {...of} />
        {sewn && <Where {...of} />}
      </div>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {sewn && <HowItSits step={step} set={set} />}
        {step.part && (
          <Check
            label="before the part is closed"
            checked={step.before_closing ?? false}
            onChecked={(before_closing) => set({ before_closing })}
          />
        )}
        <Film step={step} set={set} />
        <Check
          label="needs a picture"
          checked={step.picture ?? false}
          onChecked={(picture) => set({ picture })}
        />
      </div>
      {step.on && step.part && <Bends design={of.design} step={step} set={set} />}
      {sewn && step.part && (
        <div className="flex flex-wrap gap-2">
          <Button aria-pressed={aimed} onClick={onAim}>
            <Crosshair size={16} aria-hidden /> Point at the place
          </Button>
          <Nudge mirrored={leftHanded} onMove={(move) => set(moved(step, place, host?.counts, move))} />
          {place?.guess && <Propose guess={place.guess} set={set} />}
          <Button onClick={onNoSew}>Work it in instead of sewing</Button>
        </div>
      )}
      {step.no_sew && step.part && step.on && (
        <Button className="self-start" onClick={onSew}>
          Sew it on instead of working it in
        </Button>
      )}
      <Known step={step} place={place} />
    </div>
  );
}

/** The address of a clip in which the step is seen; what is no address is told, kept, and not printed. */
function Film({ step, set }: Pick<StepProps, "step" | "set">) {
  const film = step.film ?? "";
  const wrong = film !== "" && !/^https?:\/\/[^\s/]+\.[^\s/]+(\/\S*)?$/.test(film);
  return (
    <Field
      label="Film clip (address)"
      error={wrong ? "An address begins with https://; until it does, it is not printed." : undefined}
    >
      {(ids) => (
        <input
          {...ids}
          className={inputClass}
          type="url"
          maxLength={300}
          placeholder="https://"
          value={film}
          onChange={(e) => set({ film: e.target.value })}
        />
      )}
    </Field>
  );
}

/** Where a step's part is after a move: within the host's rounds, and not around it more than once. */
export function moved(
  step: Step,
  place: Place | undefined,
  counts: readonly number[] | undefined,
  move: Move,
): Partial<Step> {
  const round = (place?.moved ? place.round : step.round) ?? 1;
  const stitch = (place?.moved ? place.stitch : step.stitch) ?? 0;
  if (move.middle) return { round, stitch: 0 };
  if (move.tilt) return { tilt: Math.max(-90, Math.min(90, (step.tilt ?? 0) + move.tilt)) };
  if (move.turn) return { turn: Math.max(-360, Math.min(360, (step.turn ?? 0) + move.turn)) };
  const to = Math.max(1, Math.min(counts?.length ?? 2000, round + (move.round ?? 0)));
  // On another round it stays at its angle, to the half stitch.
  const turned =
    counts?.[round - 1] && counts[to - 1]
      ? stitch * ((counts[to - 1] ?? 1) / (counts[round - 1] ?? 1))
      : stitch;
  const half = (counts?.[to - 1] ?? 4000) / 2;
  const along = Math.round((turned + (move.stitch ?? 0)) * 2) / 2;
  return { round: to, stitch: along > half ? along - 2 * half : along <= -half ? along + 2 * half : along };
}

/** The part, and the one that it goes on: there at half its height, until it is said where. */
function WhichParts({ design, step, set }: StepProps) {
  const names = design.parts.map((p) => [p.key, p.name] as const);
  const gone = (key: string | null | undefined) =>
    key && !design.parts.some((p) => p.key === key) ? ([[key, "a part that is gone"]] as const) : [];
  const half = (key: string) => {
    const rounds = design.parts.find((p) => p.key === key)?.counts.length ?? 2;
    return Math.max(1, Math.round(rounds / 2));
  };
  return (
    <>
      <SelectField
        label="Part"
        value={step.part ?? ""}
        onValue={(key) => set({ part: key || null })}
        options={[["", "none"], ...names, ...gone(step.part)]}
      />
      <SelectField
        label="on"
        value={step.on ?? ""}
        onValue={(key) => set({ on: key || null, round: key ? (step.round ?? half(key)) : null })}
        options={[["", "nowhere yet"], ...names.filter(([key]) => key !== step.part), ...gone(step.on)]}
      />
    </>
  );
}

/** The place on the other part, as its rounds are now. */
function Where({ design, step, place, set }: StepProps) {
  const leftHanded = useLeftHanded();
  const host = design.parts.find((p) => p.key === step.on);
  const round = (place?.moved ? place.round : step.round) ?? 1;
  const stitch = (place?.moved ? place.stitch : step.stitch) ?? 0;
  const count = host?.counts[round - 1];
  return (
    <>
      <NumberField
        label="at round"
        least={1}
        most={host?.counts.length || 2000}
        value={Math.min(round, host?.counts.length || 2000)}
        onValue={(r) => set({ round: r, stitch })}
      />
      <NumberField
        label="from the front"
        unit="sts"
        least={-2000}
        most={2000}
        step={0.5}
        value={stitch}
        onValue={(s) => set({ stitch: s ?? 0, round })}
        hint={count ? `of ${count} in the round; ${leftHanded ? "right" : "left"} is +` : undefined}
      />
    </>
  );
}

function HowItSits({ step, set }: Pick<StepProps, "step" | "set">) {
  return (
    <>
      <Check
        label="and its mirror image"
        checked={step.paired ?? false}
        onChecked={(paired) => set({ paired, ...(paired ? { spread: 1 } : {}) })}
      />
      <NumberField
        label="Spread around"
        className="w-24"
        least={1}
        most={60}
        value={step.spread ?? 1}
        onValue={(spread) => spread && set({ spread, ...(spread > 1 ? { paired: false } : {}) })}
      />
      <NumberField
        label="Tilt up"
        unit="°"
        className="w-24"
        least={-90}
        most={90}
        step={5}
        value={step.tilt ?? 0}
        onValue={(tilt) => set({ tilt: tilt ?? 0 })}
      />
      <NumberField
        label="Turn"
        unit="°"
        className="w-24"
        least={-360}
        most={360}
        step={15}
        value={step.turn ?? 0}
        onValue={(turn) => set({ turn: turn ?? 0 })}
      />
      <SelectField
        label="Seat"
        value={step.seat ?? ""}
        onValue={(seat) => set({ seat: seat as Step["seat"] })}
        options={SEATS}
      />
      <SelectField
        label="Held by"
        value={step.fixing ?? "sewn"}
        onValue={(fixing) => set({ fixing: fixing as Step["fixing"] })}
        options={FIXINGS}
      />
    </>
  );
}

function Propose({ guess, set }: { guess: NonNullable<Place["guess"]>; set: StepProps["set"] }) {
  const { round, stitch, paired, tilt, why } = guess;
  return (
    <Button title={why} onClick={() => set({ round, stitch, paired, tilt })}>
      Propose a place
    </Button>
  );
}

function Known({ step, place }: { step: Step; place: Place | undefined }) {
  if (!place) return null;
  return (
    <>
      {place.fault && (
        <p role="alert" className="border-l-4 border-madder bg-madder-ground px-2 py-1 text-sm">
          {place.fault}
        </p>
      )}
      {place.differs && (
        <p className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
          {place.differs} Change it, or empty it to have it say the place by itself.
        </p>
      )}
      {place.moved && (
        <p className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
          The rounds changed: the same place is now R{place.round}
          {place.stitch ? `, ${place.stitch} stitches from the front` : ""}; it was R{step.round}.
        </p>
      )}
      {place.notes.map((note) => (
        <p key={note} className="border-l-4 border-weld bg-weld-ground px-2 py-1 text-sm">
          {note}
        </p>
      ))}
      {place.seam_mm !== null && (
        <p className="text-sm text-soft">
          ≈ {cm(place.seam_mm)} of seam, so a tail of {cm(place.tail_mm ?? 0)}
          {step.paired ? " each" : ""}.
        </p>
      )}
      {step.no_sew && <p className="text-sm text-soft">Worked in: the rounds of both parts say how.</p>}
    </>
  );
}
