/** Sends a part's text: what is typed is saved after a breath, and kept as a version when she rests. */
import { answer, api, type Problem, Refused, type Schemas } from "../api/client";
import type { Part } from "../design/design";
import { dropUnsent, keepUnsent, unsentText } from "../design/unsent";
import type { SaveState } from "../design/use-page";

const BREATH_MS = 500;
const REST_MS = 5000;
const RETRY_MS = 3000;
/** What a browser still sends while its page goes. */
const MOST_KEPT_ALIVE = 30_000;

export type Conflict = { mine: string; theirs: string; etag: string };

/** What the screen shows of it. */
export type Shown = {
  text: string;
  state: SaveState;
  conflict: Conflict | null;
  problem: Problem | null;
};

type Timer = ReturnType<typeof setTimeout> | undefined;

const isVersion = (etag: string) => etag.startsWith("v");

export class TextSaver {
  readonly first: Shown;
  /** Hears what changes. */
  show: (change: Partial<Shown>) => void = () => {};
  /** Has what was saved made a version. */
  keepVersion: () => void = () => {};
  private etag: string;
  /** Every tag that this window has passed: an answer that carries one of them is only late. */
  private readonly seen: Set<string>;
  private pending: string | null;
  /** What the studio has from this window, under this tag or a version of it. */
  private stored: string;
  /** Something is saved that is no version yet, perhaps since before a reload. */
  private loose: boolean;
  private saving: Promise<void> | null = null;
  private open = true;
  /** Until she has chosen nothing is sent: what she types on is added to her side of the choice. */
  private conflict: Conflict | null = null;
  private breath: Timer;
  private rest: Timer;

  constructor(
    private readonly design: number,
    private readonly part: string,
    stored: Part,
  ) {
    const waiting = unsentText(design, part);
    this.first = {
      text: waiting?.text ?? stored.text,
      state: waiting ? "unsaved" : "saved",
      conflict: null,
      problem: null,
    };
    this.etag = waiting?.etag ?? stored.etag;
    this.seen = new Set([this.etag, stored.etag]);
    this.pending = waiting?.text ?? null;
    this.stored = stored.text;
    this.loose = !isVersion(stored.etag);
  }

  type(text: string): boolean {
    const first = this.pending === null;
    this.pending = text;
    keepUnsent(this.design, { kind: "text", part: this.part, text, etag: this.etag });
    clearTimeout(this.breath);
    clearTimeout(this.rest);
    if (this.conflict) this.disagree({ ...this.conflict, mine: text });
    else {
      this.breath = setTimeout(() => void this.flush(), BREATH_MS);
      this.rest = setTimeout(() => void this.keep(), REST_MS);
    }
    return first;
  }

  /** Save what is pending; one save runs at a time. */
  async flush(): Promise<void> {
    clearTimeout(this.breath);
    while (this.saving) await this.saving;
    if (this.pending === null) return;
    this.saving = this.put(this.pending).finally(() => {
      this.saving = null;
    });
    await this.saving;
  }

  /** Save what is pending, and have it kept as a version. */
  async keep(): Promise<void> {
    clearTimeout(this.rest);
    await this.flush();
    if (!this.loose || this.pending !== null) return;
    this.loose = false;
    this.keepVersion();
  }

  /** After an undo or another shape, which waited until everything was sent. Whether the text is another. */
  takeAnew(now: Part): boolean {
    return this.pending === null && now.etag !== this.etag && this.adopt(now);
  }

  /** The part as the studio has it, perhaps from another window. Whether the text is another. */
  hear(now: Part): boolean {
    const busy = this.pending !== null || this.saving !== null;
    if (busy && now.text === this.stored && !this.seen.has(now.etag)) this.retag(now.etag);
    return !busy && !this.seen.has(now.etag) && this.adopt(now);
  }

  settle(conflict: Conflict, keep: "mine" | "theirs"): void {
    this.etag = conflict.etag;
    this.seen.add(conflict.etag);
    // Their text may become a version meanwhile: it is what she chose against, under another tag.
    this.stored = conflict.theirs;
    this.disagree(null);
    if (keep === "mine") void this.flush();
    else {
      this.done();
      this.show({ text: conflict.theirs, state: "saved" });
    }
  }

  /** The stop is shown: what waited is sent. */
  enter(): void {
    this.open = true;
    if (this.pending !== null) void this.flush();
  }

  /** The stop is left: this is the last that is sent from here. */
  leave(): void {
    this.open = false;
    clearTimeout(this.breath);
    clearTimeout(this.rest);
    void this.keep();
  }

  /** What this window saved became a version meanwhile: it is the same text under another tag. */
  private retag(etag: string): void {
    this.etag = etag;
    this.seen.add(etag);
    this.loose = !isVersion(etag);
  }

  private adopt(now: Part): true {
    this.etag = now.etag;
    this.stored = now.text;
    this.seen.add(now.etag);
    this.loose = !isVersion(now.etag);
    this.show({ text: now.text, state: "saved" });
    return true;
  }

  private disagree(conflict: Conflict | null): void {
    this.conflict = conflict;
    this.show({ conflict });
  }

  private done(): void {
    this.pending = null;
    dropUnsent(this.design, { kind: "text", part: this.part });
  }

  private async put(sent: string): Promise<void> {
    this.show({ state: "saving" });
    try {
      const saved = await answer<Schemas["TypedOut"]>(
        api.PUT("/api/designs/{design_id}/parts/{key}/typed", {
          params: { path: { design_id: this.design, key: this.part } },
          body: { text: sent, etag: this.etag },
          keepalive: sent.length < MOST_KEPT_ALIVE,
        }),
      );
      this.etag = saved.etag;
      this.seen.add(saved.etag);
      this.stored = sent;
      this.loose = true;
      this.show({ problem: null });
      if (this.pending === sent) {
        this.done();
        this.show({ state: "saved" });
      }
    } catch (error) {
      this.refused(error instanceof Refused ? error.problem : null, sent);
    }
  }

  private refused(problem: Problem | null, sent: string): void {
    if (problem?.status === 409 && problem.theirs === this.stored && problem.etag) {
      this.retag(problem.etag);
      this.breath = setTimeout(() => void this.flush());
    } else if (problem?.status === 409) {
      this.disagree({
        mine: this.pending ?? sent,
        theirs: String(problem.theirs),
        etag: problem.etag ?? "",
      });
      this.show({ state: "stale" });
    } else if (!problem || problem.status === 0 || problem.status >= 500) {
      this.show({ state: "offline" });
      // Once it is left, the stop that is shown then sends what waits: two senders would hide it from each other.
      if (this.open) this.breath = setTimeout(() => void this.flush(), RETRY_MS);
    } else this.show({ problem, state: "unsaved" });
  }
}
