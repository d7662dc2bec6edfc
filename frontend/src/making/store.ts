/** Everything of a making on the device: the edition, its pictures, and the log with what the studio has of it. */
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Figure, LogEvent, Making, What } from "./types";

export type Kept = {
  id: string;
  /** Where its page is: a link's token, or null for the designer's own. */
  token: string | null;
  making: Making;
  call: string;
  designer: string;
  figure: Figure | null;
  page: string | null;
  /** Up to which number the studio's events are here. */
  known: number;
  opened: number;
};

type Row = { id: string; making: string; sent: 0 | 1; refused?: string; event: LogEvent };
type Photo = { id: string; making: string; sent: 0 | 1; refused?: string; file: Blob };

interface Schema extends DBSchema {
  makings: { key: string; value: Kept };
  events: { key: string; value: Row; indexes: { making: string } };
  photos: { key: string; value: Photo; indexes: { making: string } };
  counters: { key: string; value: number };
  device: { key: string; value: string };
}

const VERSION = 1;
let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>("spirrel-making", VERSION, {
    upgrade(db) {
      db.createObjectStore("makings", { keyPath: "id" });
      db.createObjectStore("events", { keyPath: "id" }).createIndex("making", "making");
      db.createObjectStore("photos", { keyPath: "id" }).createIndex("making", "making");
      db.createObjectStore("counters");
      db.createObjectStore("device");
    },
    terminated() {
      opened = null;
    },
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}

/** Only for tests: the database is opened anew. */
export async function closeStore(): Promise<void> {
  (await opened)?.close();
  opened = null;
}

export const kept = async (id: string) => (await database()).get("makings", id);
export const allKept = async () => (await database()).getAll("makings");
export const keep = async (row: Kept) => void (await (await database()).put("makings", row));

export async function keptBy(token: string): Promise<Kept | undefined> {
  return (await allKept()).find((k) => k.token === token);
}

/** Write an event into the log. Its number, device and place in the log are one transaction, so that none is twice. */
export async function append(making: string, what: What, now: number): Promise<LogEvent> {
  const db = await database();
  const tx = db.transaction(["events", "counters", "device"], "readwrite");
  const device = (await tx.objectStore("device").get("id")) ?? crypto.randomUUID();
  const seq = ((await tx.objectStore("counters").get("seq")) ?? -1) + 1;
  const event = { ...what, id: crypto.randomUUID(), device, seq, at: now } as LogEvent;
  await Promise.all([
    tx.objectStore("device").put(device, "id"),
    tx.objectStore("counters").put(seq, "seq"),
    tx.objectStore("events").put({ id: event.id, making, sent: 0, event }),
    tx.done,
  ]);
  return event;
}

export async function eventsOf(making: string): Promise<LogEvent[]> {
  return (await (await database()).getAllFromIndex("events", "making", making)).map((r) => r.event);
}

/** What the studio does not have yet, in the order in which it was written; what it refused stays here and is not asked again. */
export async function unsent(making: string): Promise<LogEvent[]> {
  const rows = await (await database()).getAllFromIndex("events", "making", making);
  return rows
    .filter((r) => !r.sent && !r.refused)
    .map((r) => r.event)
    .sort((a, b) => a.seq - b.seq);
}

export async function refusedOf(making: string): Promise<string[]> {
  const rows = await (await database()).getAllFromIndex("events", "making", making);
  return rows.flatMap((r) => (r.refused ? [r.refused] : []));
}

/** What a sync came to: events that the studio has now, those that it refused, and those that others wrote. */
export async function settle(
  making: string,
  sent: readonly LogEvent[],
  refused: ReadonlyMap<string, string>,
  others: readonly LogEvent[],
  known: number,
): Promise<void> {
  const tx = (await database()).transaction(["events", "makings"], "readwrite");
  const events = tx.objectStore("events");
  const there = new Map<string, Row>();
  for (const event of [...sent, ...others])
    there.set(event.id, {
      id: event.id,
      making,
      sent: refused.has(event.id) ? 0 : 1,
      refused: refused.get(event.id),
      event,
    });
  await Promise.all([...there.values()].map((row) => events.put(row)));
  const row = await tx.objectStore("makings").get(making);
  if (row && row.known < known) await tx.objectStore("makings").put({ ...row, known });
  await tx.done;
}

export async function addPhoto(making: string, id: string, file: Blob): Promise<void> {
  await (await database()).put("photos", { id, making, sent: 0, file });
}

export const photosOf = async (making: string) =>
  (await database()).getAllFromIndex("photos", "making", making);

export async function photoSent(id: string, refused?: string): Promise<void> {
  const db = await database();
  const row = await db.get("photos", id);
  if (row) await db.put("photos", { ...row, sent: refused ? 0 : 1, refused });
}

/** Take a making off this device; what the studio has of it stays there. */
export async function drop(making: string): Promise<void> {
  const tx = (await database()).transaction(["makings", "events", "photos"], "readwrite");
  await tx.objectStore("makings").delete(making);
  for (const store of [tx.objectStore("events"), tx.objectStore("photos")] as const) {
    let cursor = await store.index("making").openCursor(making);
    while (cursor) {
      await cursor.delete();
      cursor = await cursor.continue();
    }
  }
  await tx.done;
}

/** Take the designer's own makings off this device as she signs out; a link's stay with whoever holds it. What waits for a
 * net stays, too, as it would be lost: the answer is how many do. */
export async function dropOwn(): Promise<number> {
  let waiting = 0;
  for (const row of (await allKept()).filter((k) => k.token === null)) {
    const photos = (await photosOf(row.id)).filter((p) => !p.sent && !p.refused);
    if (photos.length || (await unsent(row.id)).length) waiting += 1;
    else await drop(row.id);
  }
  return waiting;
}
