/** Brings the log to the studio and what others wrote back: a union of sets, so that nothing is lost and nothing is twice. */
import { Refused, sendPicture, sync, Unreached, type Way } from "./server";
import { kept, photoSent, photosOf, settle, unsent } from "./store";

/** As many as one request may bring. */
const AT_ONCE = 200;

export type Outcome = { state: "synced" } | { state: "offline" } | { state: "closed"; why: string };

/** Nothing more may be brought: the link is withdrawn, or she is signed out. */
const CLOSED = [401, 403, 404];

/** Asked too often, no place just now, no room on its disk, broken: the studio's own trouble, which passes. */
const passes = (status: number) => status === 429 || status >= 500;

/** Bring and fetch until both sides have the same. One tab at a time, where the browser can say so. */
export async function syncNow(way: Way, making: string): Promise<Outcome> {
  const work = () => exchange(way, making);
  if (!("locks" in navigator)) return work();
  return navigator.locks.request(`spirrel-sync-${making}`, work);
}

async function exchange(way: Way, making: string): Promise<Outcome> {
  try {
    for (;;) {
      const row = await kept(making);
      const bring = (await unsent(making)).slice(0, AT_ONCE);
      const got = await sync(way, making, bring, row?.known ?? 0);
      const refused = new Map(got.refused.map((r) => [r.id, r.why]));
      await settle(making, bring, refused, got.events, got.known);
      if (!got.more && bring.length < AT_ONCE) break;
    }
    await sendPhotos(way, making);
    return { state: "synced" };
  } catch (error) {
    if (error instanceof Unreached) return { state: "offline" };
    if (error instanceof Refused && passes(error.status)) return { state: "offline" };
    if (error instanceof Refused) return { state: "closed", why: error.message };
    throw error;
  }
}

async function sendPhotos(way: Way, making: string): Promise<void> {
  for (const photo of await photosOf(making)) {
    if (photo.sent || photo.refused) continue;
    try {
      await sendPicture(way, making, photo.id, photo.file);
      await photoSent(photo.id);
    } catch (error) {
      if (!(error instanceof Refused) || CLOSED.includes(error.status) || passes(error.status)) throw error;
      await photoSent(photo.id, error.message);
    }
  }
}
