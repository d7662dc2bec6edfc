/** Which part of a photograph is kept: by numbers at its four edges, shown at once. */
import type { Schemas } from "../api/client";
import { Button, NumberField } from "../ui/controls";
import { Dialog } from "../ui/overlays";
import type { Photo } from "./photos";

/** The least share of a picture that is kept, in percent. */
const LEAST = 5;

type Edges = { left: number; top: number; right: number; bottom: number };

/** What is cut off at each edge, in percent. */
export function edgesOf(photo: Photo): Edges {
  const { left = 0, top = 0, wide = 1, tall = 1 } = photo;
  const percent = (share: number) => Math.round(share * 100);
  return {
    left: percent(left),
    top: percent(top),
    right: percent(Math.max(0, 1 - left - wide)),
    bottom: percent(Math.max(0, 1 - top - tall)),
  };
}

/** The kept part when an edge is moved; the other edge stays, and some of the picture always does. */
export function cutTo(edges: Edges): Pick<Photo, "left" | "top" | "wide" | "tall"> {
  const left = Math.min(edges.left, 100 - LEAST);
  const top = Math.min(edges.top, 100 - LEAST);
  return {
    left: left / 100,
    top: top / 100,
    wide: Math.max(LEAST, 100 - left - edges.right) / 100,
    tall: Math.max(LEAST, 100 - top - edges.bottom) / 100,
  };
}

export function Cropping({
  photo,
  picture,
  onChange,
  onClose,
}: {
  photo: Photo;
  picture: Schemas["PictureOut"];
  onChange: (more: Partial<Photo>) => void;
  onClose: () => void;
}) {
  const edges = edgesOf(photo);
  const { left, top, right, bottom } = edges;
  return (
    <Dialog open onOpen={(open) => !open && onClose()} title="Crop the photograph">
      <div className="relative mx-auto mb-3 w-fit overflow-hidden">
        <img src={picture.url} alt={photo.alt || "The photograph"} className="max-h-[45dvh] w-auto" />
        <span
          aria-hidden="true"
          className="absolute border-2 border-woad"
          style={{
            left: `${left}%`,
            top: `${top}%`,
            right: `${right}%`,
            bottom: `${bottom}%`,
            boxShadow: "0 0 0 100vmax rgb(0 0 0 / 0.5)",
          }}
        />
      </div>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {(["left", "right", "top", "bottom"] as const).map((edge) => (
          <NumberField
            key={edge}
            label={`Off the ${edge}`}
            unit="%"
            least={0}
            most={100 - LEAST}
            step={1}
            value={edges[edge]}
            onValue={(value) => onChange(cutTo({ ...edges, [edge]: value ?? 0 }))}
          />
        ))}
      </div>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={() => onChange({ left: 0, top: 0, wide: 1, tall: 1 })}>The whole picture</Button>
        <Button weight="main" onClick={onClose}>
          Done
        </Button>
      </div>
    </Dialog>
  );
}
