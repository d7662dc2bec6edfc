/** The terms that rounds are written in, to choose from. */
export const TERMS = [
  ["us", "US terms (sc, hdc, dc)"],
  ["uk", "UK terms (dc, htr, tr)"],
  ["letters", "Letters (X, V, A)"],
] as const;
