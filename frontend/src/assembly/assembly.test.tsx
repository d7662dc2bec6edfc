import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import type { ReactElement } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Design } from "../design/design";
import { moved } from "../ui/moved";
import { Eyes } from "./eyes";
import { Face } from "./face";
import { FinishedSize } from "./put-together";
import { type Step, StepFields } from "./step-fields";
import type { Scene } from "./use-scene";

const design = {
  brief: { audience: "play" },
  parts: [
    { key: "head", name: "Head", counts: [6, 12, 18, 18, 12, 6] },
    { key: "ear", name: "Ear", counts: [6, 6] },
  ],
} as unknown as Design;

const step = {
  key: "a",
  text: "Sew on the ears.",
  part: "ear",
  on: "head",
  round: 4,
  stitch: 3,
  paired: true,
  tilt: 0,
  turn: 0,
  before_closing: false,
  seat: "",
  wide: null,
  share: null,
  angle: null,
  picture: false,
  no_sew: false,
} as Step;

const place: Scene["steps"][number] = {
  key: "a",
  round: 5,
  stitch: 2,
  moved: true,
  seam_mm: 40,
  tail_mm: 270,
  first: 0,
  last: 0,
  fault: "This must come before step 1: wire goes in before the part is sewn on.",
  notes: ["6 stitches pinch evenly."],
  said: "Sew Ears on Head, R5, 2 stitches to either side of the front middle.",
  differs: null,
  guess: { round: 2, stitch: 1.5, paired: true, tilt: 35, why: "ears sit just above the widest part" },
};

/** Render for a designer who crochets with this hand. */
function renderFor(leftHanded: boolean, shown: ReactElement) {
  const client = new QueryClient();
  client.setQueryData(["session"], { demo: false, me: { left_handed: leftHanded } });
  render(<QueryClientProvider client={client}>{shown}</QueryClientProvider>);
}

function fields(more: Partial<Step> = {}, at: typeof place | undefined = place, leftHanded = false) {
  const set = vi.fn();
  const onAim = vi.fn();
  const onNoSew = vi.fn();
  renderFor(
    leftHanded,
    <StepFields
      design={design}
      step={{ ...step, ...more }}
      place={at}
      set={set}
      aimed={false}
      onAim={onAim}
      onSew={vi.fn()}
      onNoSew={onNoSew}
    />,
  );
  return { set, onAim, onNoSew };
}

describe("a step", () => {
  it("says its fault, that its place moved, and its seam", () => {
    fields();
    expect(screen.getByRole("alert").textContent).toContain("wire goes in before");
    expect(screen.getByText(/same place is now R5, 2 stitches from the front; it was R4/)).toBeTruthy();
    expect(screen.getByText(/of seam, so a tail of .* each/)).toBeTruthy();
    expect(screen.getByText("6 stitches pinch evenly.")).toBeTruthy();
  });
  it("shows the place as the rounds are now, and takes a proposal", () => {
    const { set } = fields();
    expect((screen.getByLabelText("at round") as HTMLInputElement).value).toBe("5");
    fireEvent.click(screen.getByRole("button", { name: "Propose a place" }));
    expect(set).toHaveBeenCalledWith({ round: 2, stitch: 1.5, paired: true, tilt: 35 });
  });
  it("can be aimed, worked in, and needs a picture", () => {
    const { set, onAim, onNoSew } = fields();
    fireEvent.click(screen.getByRole("button", { name: /Point at the place/ }));
    fireEvent.click(screen.getByRole("button", { name: /Work it in/ }));
    fireEvent.click(screen.getByLabelText("needs a picture"));
    expect(onAim).toHaveBeenCalled();
    expect(onNoSew).toHaveBeenCalled();
    expect(set).toHaveBeenCalledWith({ picture: true });
  });
  it("counts to the side that a left-hander sees", () => {
    fields();
    expect(screen.getByText(/of 12 in the round; left is \+/)).toBeTruthy();
    cleanup();
    fields({}, place, true);
    expect(screen.getByText(/of 12 in the round; right is \+/)).toBeTruthy();
  });
  it("offers no place once it is worked in", () => {
    fields({ no_sew: true }, { ...place, fault: null, moved: false, seam_mm: null, tail_mm: null });
    expect(screen.queryByLabelText("at round")).toBeNull();
    expect(screen.queryByRole("button", { name: /Work it in/ })).toBeNull();
    expect(screen.getByText(/rounds of both parts say how/)).toBeTruthy();
  });
});

const eyesOut = {
  part: "head",
  round: 4,
  between: 4,
  eye_mm: 8,
  points: [],
  out: [],
  after: [2, 6],
  off_centre: 0.5,
  words: "between R4 and R5, after stitches 2 and 6 of R4, with 4 stitches visible between",
  in_text: false,
  moved: true,
  warnings: [{ code: "washer", message: "A washer of 11 mm no longer passes." }],
};

function eyes(page: object, audience = "play", leftHanded = false) {
  const change = vi.fn();
  const scene = {
    eyes: eyesOut,
    guess: { part: "head", round: 3, between: 4, eye_mm: 6 },
  } as unknown as Scene;
  const tell = vi.fn();
  renderFor(
    leftHanded,
    <Eyes
      design={{ ...design, brief: { audience } } as unknown as Design}
      value={page as never}
      change={change}
      scene={scene}
      aimed={false}
      onAim={() => {}}
      onTell={tell}
    />,
  );
  unfold("Eyes");
  return Object.assign(change, { tell });
}

/** Open a panel that is folded to a line. */
function unfold(title: string) {
  const fold = screen.getByRole("button", { name: new RegExp(`^${title}`) });
  if (fold.getAttribute("aria-expanded") === "false") fireEvent.click(fold);
}

describe("eyes", () => {
  it("are a line once they have a place, and open to their fields", () => {
    eyes({ eye_kind: "safety", eye_mm: 8, eyes: { part: "head", round: 3, between: 4, share: 0.5 } });
    fireEvent.click(screen.getByRole("button", { name: "Eyes" }));
    const line = screen.getByRole("button", { name: /^Eyes/ });
    expect(line.textContent).toContain("8 mm safety eyes, between R4 and R5");
    expect(line.textContent).toContain("to look at");
    expect(line.getAttribute("aria-expanded")).toBe("false");
  });
  const set = { eye_kind: "safety", eye_mm: 8, eyes: { part: "head", round: 3, between: 4, share: 0.5 } };
  it("say where they are, that they moved, and what is in the way", () => {
    eyes(set);
    expect(screen.getByTestId("eyes-said").textContent).toContain(
      "Between R4 and R5, after stitches 2 and 6",
    );
    expect(screen.getByText(/they were above R3/)).toBeTruthy();
    expect(screen.getByText(/0.5 stitches left of the front/)).toBeTruthy();
    expect(screen.getByText("A washer of 11 mm no longer passes.")).toBeTruthy();
    expect(screen.getByRole("note").textContent).toContain("not for children under three");
  });
  it("lie on the other side of the front for a left-hander", () => {
    eyes(set, "play", true);
    expect(screen.getByText(/0.5 stitches right of the front/)).toBeTruthy();
  });
  it("are written into rounds that do not tell of them", () => {
    const { tell } = eyes(set);
    fireEvent.click(screen.getByRole("button", { name: /Write it into the rounds/ }));
    expect(tell).toHaveBeenCalled();
  });
  it("are proposed, embroidered for the youngest", () => {
    const change = eyes({ eye_kind: "none" }, "under-three");
    fireEvent.click(screen.getByRole("button", { name: "Propose a place" }));
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({
        eye_kind: "embroidered",
        eyes: { part: "head", round: 3, between: 4, share: null },
      }),
    );
  });
  it("forget the kept place when another round is typed", () => {
    const change = eyes({ ...set, eyes: { ...set.eyes } });
    fireEvent.change(screen.getByLabelText("above round"), { target: { value: "5" } });
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({ eyes: { part: "head", round: 5, between: 4, share: null } }),
    );
  });
});

describe("a face", () => {
  it("gets points, and loses them", () => {
    const change = vi.fn();
    const mark = { key: "m", name: "nose", part: "head", round: 2, stitch: 0, paired: false, to_round: null };
    render(
      <Face
        design={design}
        value={{ marks: [mark] } as never}
        change={change}
        aimed={null}
        onAim={() => {}}
      />,
    );
    unfold("Face");
    fireEvent.click(screen.getByRole("button", { name: "Add a point to embroider" }));
    expect(change.mock.lastCall?.[0].marks).toHaveLength(2);
    fireEvent.change(screen.getByLabelText("Point 1"), { target: { value: "mouth" } });
    expect(change.mock.lastCall?.[0].marks[0].name).toBe("mouth");
    fireEvent.change(screen.getByLabelText("line to round"), { target: { value: "4" } });
    expect(change.mock.lastCall?.[0].marks[0].to_round).toBe(4);
    fireEvent.click(screen.getByRole("button", { name: "Remove point 1" }));
    expect(change.mock.lastCall?.[0].marks).toHaveLength(0);
  });
});

describe("a list of steps", () => {
  it("is moved within its ends", () => {
    expect(moved(["a", "b", "c"], 0, 2)).toEqual(["b", "c", "a"]);
    expect(moved(["a", "b"], 0, 5)).toEqual(["a", "b"]);
  });
});

describe("the finished size", () => {
  const whole = {
    joined: true,
    whole: true,
    height_mm: 120,
    width_mm: 80,
    depth_mm: 70,
    swung: 0,
    placed: [{}, {}],
    balance: { verdict: "steady", words: "It is steady." },
  } as unknown as Scene;
  it("is told of a figure that holds together", () => {
    render(<FinishedSize scene={whole} posture="standing" />);
    expect(screen.getByText(/12 cm .* tall, 8 cm wide/)).toBeTruthy();
    expect(screen.getByText("It is steady.")).toBeTruthy();
  });
  it("is told of no heap of loose parts, nor is its balance", () => {
    cleanup();
    render(<FinishedSize scene={{ ...whole, joined: false }} posture="standing" />);
    expect(screen.getByText(/lie loose/)).toBeTruthy();
    expect(screen.queryByText(/tall|steady/)).toBeNull();
  });
});
