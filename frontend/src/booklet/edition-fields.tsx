/** Everything that is chosen of an edition: which booklet it is, and how it is printed. */
import type { Design } from "../design/design";
import { Check, SelectField } from "../ui/controls";
import { type Asked, EXPLAINED, editionsOf, LANGUAGES, PAPERS, PICTURES, TERMS } from "./edition";

export function EditionFields({
  design,
  asked,
  onAsked,
  painting = 0,
  columns,
}: {
  design: Design;
  asked: Asked;
  onAsked: (more: Partial<Asked>) => void;
  /** How many pictures are still being painted. */
  painting?: number;
  /** How its fields lie beside each other. */
  columns: string;
}) {
  const editions = editionsOf(design);
  return (
    <>
      <div className={`grid gap-2 ${columns}`}>
        {editions.length > 1 && (
          <SelectField
            label="Edition"
            value={asked.edition}
            onValue={(edition) => onAsked({ edition })}
            options={editions}
            className="col-span-full"
          />
        )}
        <SelectField
          label="Language"
          value={asked.language}
          onValue={(language) => onAsked({ language })}
          options={LANGUAGES}
        />
        {asked.language === "en" && (
          <SelectField
            label="Terms"
            value={asked.terms}
            onValue={(terms) => onAsked({ terms })}
            options={TERMS}
          />
        )}
        <SelectField
          label="Paper"
          value={asked.paper}
          onValue={(paper) => onAsked({ paper })}
          options={PAPERS}
        />
        <SelectField
          label="Pictures"
          value={asked.pictures}
          onValue={(pictures) => onAsked({ pictures })}
          options={PICTURES}
          hint={painting > 0 ? `${painting} still being painted.` : undefined}
        />
        <SelectField
          label="Explained"
          value={asked.explained}
          onValue={(explained) => onAsked({ explained })}
          options={EXPLAINED}
        />
      </div>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        <Check label="Left-handed" checked={asked.left} onChecked={(left) => onAsked({ left })} />
        <Check label="Large type" checked={asked.large} onChecked={(large) => onAsked({ large })} />
        <Check label="Little ink" checked={asked.low_ink} onChecked={(low_ink) => onAsked({ low_ink })} />
      </div>
    </>
  );
}
