/** A making on this device: opened from the studio once, written to at once, synced when there is a net. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Progress, progressOf } from "./progress";
import { Refused, readEdition, readFigure, readMaking, readTest, type Way } from "./server";
import {
  addPhoto,
  append,
  eventsOf,
  type Kept,
  keep,
  kept,
  keptBy,
  photosOf,
  refusedOf,
  unsent,
} from "./store";
import { type Outcome, syncNow } from "./syncing";
import type { LogEvent, What } from "./types";

const SOON_MS = 600;
const AGAIN_MS = 15_000;
const FIGURE_MS = 8_000;

export type Net = { waiting: number; outcome: Outcome | null };

const FULL =
  "This device has no room left: free some, and tap again. What was noted before is kept, and is sent while there is a net.";

/** Whether a browser says that nothing fits any more. */
const isFull = (error: unknown) => error instanceof DOMException && error.name === "QuotaExceededError";

/** Bring a making onto this device, or hand out what is here; Refused or Unreached where neither is possible. */
export async function openMaking(way: Way, id: string | null): Promise<Kept> {
  const here = way.token ? await keptBy(way.token) : id ? await kept(id) : undefined;
  try {
    const fresh = way.token
      ? await readTest(way)
      : { making: await readMaking(way, id ?? ""), call: "", designer: "" };
    const row: Kept = {
      id: fresh.making.id,
      token: way.token,
      making: fresh.making,
      call: fresh.call,
      designer: fresh.designer,
      figure: here?.figure ?? null,
      page: here?.page ?? null,
      known: (await kept(fresh.making.id))?.known ?? 0,
      opened: Date.now(),
    };
    await keep(row);
    return row;
  } catch (error) {
    if (here) return here;
    throw error;
  }
}

/** The booklet and the drawings, once they are ready; asked for again until all parts have settled. */
export function useEnclosed(way: Way, row: Kept, onRow: (row: Kept) => void): void {
  const now = useRef(row);
  now.current = row;
  const { id } = row;
  const { token } = way;
  useEffect(() => {
    const by = { token };
    let timer: ReturnType<typeof setTimeout> | undefined;
    let over = false;
    const fetchAll = async () => {
      try {
        const here = (await kept(id)) ?? now.current;
        const page = here.page ?? (await readEdition(by, id));
        // What was kept before parts were settled on their way is asked for once more.
        const complete = here.figure?.whole && here.figure.open;
        const figure = complete && here.figure ? here.figure : await readFigure(by, id);
        const next = { ...((await kept(id)) ?? now.current), page, figure };
        await keep(next);
        if (over) return;
        onRow(next);
        if (!figure.whole) timer = setTimeout(() => void fetchAll(), FIGURE_MS);
      } catch {
        // Without a net, or without room, the round and the ladder are there all the same.
      }
    };
    void fetchAll();
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [token, id, onRow]);
}

export function useMaking(way: Way, opened: Kept) {
  const [row, setRow] = useState(opened);
  const [events, setEvents] = useState<LogEvent[] | null>(null);
  const [photos, setPhotos] = useState<Map<string, string>>(new Map());
  const [net, setNet] = useState<Net>({ waiting: 0, outcome: null });
  const [refused, setRefused] = useState<string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEnclosed(way, row, setRow);

  const reread = useCallback(async () => {
    setEvents(await eventsOf(opened.id));
    setRefused(await refusedOf(opened.id));
    const files = await photosOf(opened.id);
    setPhotos((had) => new Map(files.map((p) => [p.id, had.get(p.id) ?? URL.createObjectURL(p.file)])));
    return (await unsent(opened.id)).length + files.filter((p) => !p.sent && !p.refused).length;
  }, [opened.id]);

  const bring = useCallback(async () => {
    clearTimeout(timer.current);
    const outcome = await syncNow(way, opened.id);
    const waiting = await reread();
    setNet({ waiting, outcome });
    if (outcome.state === "offline") timer.current = setTimeout(() => void bring(), AGAIN_MS);
  }, [way, opened.id, reread]);

  const say = useCallback(
    async (what: What): Promise<boolean> => {
      try {
        const event = await append(opened.id, what, Date.now());
        setEvents((had) => [...(had ?? []), event]);
        setNet((had) => ({ ...had, waiting: had.waiting + 1 }));
        setProblem(null);
      } catch (error) {
        setProblem(
          isFull(error) ? FULL : "This browser does not let the page keep anything: leave private browsing.",
        );
        return false;
      }
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void bring(), SOON_MS);
      return true;
    },
    [opened.id, bring],
  );

  const photograph = useCallback(
    async (file: Blob, what: Omit<Extract<What, { kind: "picture" }>, "kind" | "picture">) => {
      const id = crypto.randomUUID();
      try {
        await addPhoto(opened.id, id, file);
      } catch (error) {
        setProblem(isFull(error) ? FULL : "The picture could not be kept on this device.");
        return false;
      }
      return say({ kind: "picture", picture: id, ...what });
    },
    [opened.id, say],
  );

  useEffect(() => {
    void reread().then((waiting) => setNet((had) => ({ ...had, waiting })));
    void bring();
    const back = () => document.visibilityState === "visible" && void bring();
    window.addEventListener("online", back);
    document.addEventListener("visibilitychange", back);
    void navigator.storage?.persist?.();
    return () => {
      clearTimeout(timer.current);
      window.removeEventListener("online", back);
      document.removeEventListener("visibilitychange", back);
    };
  }, [bring, reread]);

  const progress: Progress = useMemo(() => progressOf(events ?? []), [events]);
  return {
    row,
    events: events ?? [],
    ready: events !== null,
    progress,
    photos,
    net,
    refused,
    problem,
    say,
    photograph,
    bring,
  };
}

export type MakingState = ReturnType<typeof useMaking>;

/** Why a making could not be opened, in a sentence. */
export function whyNot(error: unknown): string {
  if (error instanceof Refused && error.status === 401)
    return "Sign in on this device first, then open this page again.";
  if (error instanceof Refused) return error.message;
  return "There is no net, and this making was not opened on this device before. Open it once while there is one.";
}
