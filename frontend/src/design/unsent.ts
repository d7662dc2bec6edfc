/** What was typed and has not reached the studio yet: kept in this browser, whatever stop is shown, until it has. */
import type { FilledPage, PageName } from "./design";

export type UnsentText = { kind: "text"; part: string; text: string; etag: string };
export type UnsentPage = { kind: "page" } & FilledPage;
export type Unsent = UnsentText | UnsentPage;

const PREFIX = "spirrel-unsent-";
/** Where texts waited before pages did, too. */
const OLDER = "spirrel-draft-";

/** What tells one thing that waits from another of the same design. */
type Named = Pick<UnsentText, "kind" | "part"> | { kind: "page"; page: PageName };

function idOf(item: Named): string {
  return item.kind === "text" ? `text-${item.part}` : `page-${item.page}`;
}

/** Whose texts these are: she who is signed in. */
let whose = "";

/** Everything kept from now on is hers; texts that waited under the older names are taken over once. */
export function keepFor(user: string): void {
  whose = user;
  takeOver();
}

function keyOf(design: number, id: string): string {
  return `${PREFIX}${whose}-${design}-${id}`;
}

function parsed(raw: string | null): Unsent | null {
  try {
    const kept: unknown = JSON.parse(raw ?? "null");
    if (kept && typeof kept === "object" && "kind" in kept) return kept as Unsent;
  } catch {
    return null;
  }
  return null;
}

/** What the last one heard could not be kept: the browser's store is full or shut. */
let full = false;

export function storeIsFull(): boolean {
  return full;
}

/** Keep what is typed until it is sent; false when this browser cannot. */
export function keepUnsent(design: number, item: Unsent): boolean {
  try {
    localStorage.setItem(keyOf(design, idOf(item)), JSON.stringify(item));
    full = false;
  } catch {
    full = true;
  }
  return !full;
}

export function dropUnsent(design: number, item: Named): void {
  localStorage.removeItem(keyOf(design, idOf(item)));
}

export function unsentText(design: number, part: string): UnsentText | null {
  const kept = parsed(localStorage.getItem(keyOf(design, `text-${part}`)));
  return kept?.kind === "text" ? kept : null;
}

export function unsentPage(design: number, page: PageName): UnsentPage | null {
  const kept = parsed(localStorage.getItem(keyOf(design, `page-${page}`)));
  return kept?.kind === "page" ? kept : null;
}

/** Everything of a design that waits. */
export function allUnsent(design: number): Unsent[] {
  const start = keyOf(design, "");
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(start))
    .map((key) => parsed(localStorage.getItem(key)))
    .filter((item): item is Unsent => item !== null);
}

/** Whether anything at all of hers waits, in any design. */
export function anyUnsent(): boolean {
  return Object.keys(localStorage).some((key) => key.startsWith(`${PREFIX}${whose}-`));
}

function takeOver(): void {
  for (const key of Object.keys(localStorage)) {
    const found = /^spirrel-draft-(.*)-(\d+)-([a-z0-9]+)$/.exec(key);
    if (!found || found[1] !== whose) continue;
    try {
      const { text, etag } = JSON.parse(localStorage.getItem(key) ?? "{}");
      if (typeof text !== "string" || typeof etag !== "string") continue;
      if (keepUnsent(Number(found[2]), { kind: "text", part: found[3] ?? "", text, etag }))
        localStorage.removeItem(key);
    } catch {
      // What cannot be read stays where it is.
    }
  }
}

/** Everything kept here belongs to one designer and goes when she signs out. */
export function wipeUnsent(): void {
  for (const key of Object.keys(localStorage))
    if (key.startsWith(PREFIX) || key.startsWith(OLDER)) localStorage.removeItem(key);
}

const held = new Map<string, number>();

/** A screen that sends this itself while it is open; the answer lets go of it. */
export function holdUnsent(design: number, id: string): () => void {
  const key = `${design}-${id}`;
  held.set(key, (held.get(key) ?? 0) + 1);
  return () => {
    const left = (held.get(key) ?? 1) - 1;
    if (left > 0) held.set(key, left);
    else held.delete(key);
  };
}

export function isHeld(design: number, item: Unsent): boolean {
  return held.has(`${design}-${idOf(item)}`);
}
