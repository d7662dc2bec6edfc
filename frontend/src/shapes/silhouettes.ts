/** Small outlines for choosing a base, and a solid's proportions when first chosen. */
import type { Schemas } from "../api/client";

export type Kind = Schemas["Solid"]["kind"];

export const KINDS: readonly {
  kind: Kind;
  name: string;
  use: string;
  path: string;
  height: number;
  width: number;
  open: boolean;
}[] = [
  {
    kind: "sphere",
    name: "Ball",
    use: "heads, bodies",
    path: "M20 5a15 15 0 1 1 0 30a15 15 0 1 1 0-30z",
    height: 60,
    width: 60,
    open: false,
  },
  {
    kind: "ellipsoid",
    name: "Ellipsoid",
    use: "long or flat bodies, seeds",
    path: "M20 9c10 0 16 5 16 11s-6 11-16 11S4 26 4 20 10 9 20 9z",
    height: 50,
    width: 70,
    open: false,
  },
  {
    kind: "egg",
    name: "Egg",
    use: "sitting bodies, blunt end first",
    path: "M20 4c6 0 13 10 13 19 0 8-6 13-13 13S7 31 7 23C7 14 14 4 20 4z",
    height: 80,
    width: 60,
    open: false,
  },
  {
    kind: "drop",
    name: "Drop",
    use: "tip first: noses, hats, leaves",
    path: "M20 3c2 8 13 14 13 23 0 7-6 11-13 11S7 33 7 26C7 17 18 11 20 3z",
    height: 60,
    width: 45,
    open: false,
  },
  {
    kind: "cone",
    name: "Cone",
    use: "tip first: noses, horns, hats",
    path: "M20 4l13 31H7z",
    height: 30,
    width: 25,
    open: true,
  },
  {
    kind: "dome",
    name: "Dome",
    use: "caps, ears, shells",
    path: "M4 32C4 17 11 8 20 8s16 9 16 24z",
    height: 25,
    width: 40,
    open: true,
  },
  {
    kind: "capsule",
    name: "Capsule",
    use: "bodies, arms, legs",
    path: "M20 3c6 0 9 4 9 9v16c0 5-3 9-9 9s-9-4-9-9V12c0-5 3-9 9-9z",
    height: 60,
    width: 25,
    open: true,
  },
  {
    kind: "cylinder",
    name: "Cylinder",
    use: "stems, drums, stumps",
    path: "M9 5h22v30H9z",
    height: 50,
    width: 40,
    open: false,
  },
];

/** Bases that are no solid, with what they are for. */
export const OTHER_BASES = [
  {
    base: "traced",
    name: "Traced",
    use: "an outline drawn over a picture",
    path: "M20 4c7 0 9 5 7 11-2 5 6 8 6 13 0 5-6 8-13 8S7 33 7 28c0-5 8-8 6-13-2-6 0-11 7-11z",
  },
  {
    base: "stack",
    name: "Stack",
    use: "solids one on the other, joined by necks",
    path: "M20 3c6 0 9 4 9 8 0 3-1 5-3 6 5 2 8 6 8 10 0 6-6 10-14 10S6 33 6 27c0-4 3-8 8-10-2-1-3-3-3-6 0-4 3-8 9-8z",
  },
  {
    base: "box",
    name: "Box",
    use: "crates, books, carts: worked around, or as flat panels",
    path: "M5 13l11-8h19v19l-8 11H5zM5 13h22v22M27 13l8-8",
  },
  {
    base: "mesh",
    name: "Mesh",
    use: "a 3D model from a file",
    path: "M20 4l14 9v14l-14 9-14-9V13zM20 4v32M6 13l28 14M34 13L6 27",
  },
] as const;
