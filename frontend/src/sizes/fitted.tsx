/** What a part is to go around: a girth, a width, a thing, or another part, of this design or of another. */
import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { type Design, type Part, useDesign } from "../design/design";
import { NumberField, SelectField } from "../ui/controls";
import { ACROSS, type Asked, THING, type Thing } from "./asking";

/** The design whose part is to be fitted. */
function useOther(asked: Asked, design: Design): Design | undefined {
  return useDesign(asked.fitsDesign ? Number(asked.fitsDesign) : design.id).data;
}

/** What the part that is to be fitted is called; with its design's name where that is another. */
export function useFittedName(asked: Asked, design: Design): string | undefined {
  const other = useOther(asked, design);
  const name = other?.parts.find((p) => p.key === asked.fits)?.name;
  return name && asked.fitsDesign ? `${name} of ${other?.name}` : name;
}

const withRounds = (parts: readonly Part[], besides: string) =>
  parts.filter((p) => p.counts.length && p.key !== besides).map((p) => [p.key, p.name] as const);

export function Fitted({
  asked,
  set,
  design,
  things,
}: {
  asked: Asked;
  set: (change: Partial<Asked>) => void;
  design: Design;
  things: readonly Thing[];
}) {
  const thing = things.find((t) => THING + t.key === asked.fits);
  const other = useOther(asked, design);
  const shelf = useQuery({
    queryKey: ["shelf"],
    queryFn: () => answer<Schemas["DesignRow"][]>(api.GET("/api/designs")),
  });
  const others = (shelf.data ?? []).filter((d) => d.id !== design.id);
  return (
    <>
      {others.length > 0 && (
        <SelectField
          label="Something of"
          className="col-span-2"
          value={asked.fitsDesign}
          onValue={(fitsDesign) => set({ fitsDesign, fits: "" })}
          options={[["", "this design, or a measure"], ...others.map((d) => [String(d.id), d.name] as const)]}
        />
      )}
      <SelectField
        label="Fits"
        value={asked.fits}
        onValue={(fits) => set({ fits })}
        options={
          asked.fitsDesign
            ? [["", "choose its part"], ...withRounds(other?.parts ?? [], "")]
            : [
                ["", "a girth"],
                [ACROSS, "something round, by its width"],
                ...withRounds(design.parts, asked.part),
                ...things.map((t) => [THING + t.key, t.name] as const),
              ]
        }
      />
      {!asked.fitsDesign && asked.fits === "" && (
        <NumberField
          label="Girth to fit"
          unit="mm"
          least={10}
          most={10000}
          value={asked.girth}
          onValue={(girth) => set({ girth })}
        />
      )}
      {asked.fits === ACROSS && (
        <NumberField
          label="How wide it is"
          unit="mm"
          least={5}
          most={3000}
          value={asked.across}
          onValue={(across) => set({ across })}
        />
      )}
      {thing && (
        <p className="self-end text-sm text-soft">
          {Math.round(thing.girth_mm)} mm around: {thing.source}. Your own tape is better.
        </p>
      )}
    </>
  );
}
