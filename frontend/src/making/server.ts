/** The studio as the making page asks it: as its designer, or as whoever holds a link. */
import type { components } from "../api/schema";
import type { Figure, LogEvent, Making } from "./types";

type Schemas = components["schemas"];
export type Synced = Schemas["SyncOut"];

/** A refusal of the studio, in its own words. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    detail: string,
  ) {
    super(detail);
  }
}

/** The studio did not answer: no net, or it is down. Nothing is lost by that. */
export class Unreached extends Error {}

export type Way = { token: string | null };

function headers(way: Way, method: string): Record<string, string> {
  if (way.token) return { "X-Link": way.token };
  const csrf = /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";
  return method === "GET" ? {} : { "X-CSRFToken": decodeURIComponent(csrf) };
}

async function ask(
  way: Way,
  method: string,
  path: string,
  body?: BodyInit,
  kind?: string,
): Promise<Response> {
  let got: Response;
  try {
    got = await fetch(`/api${path}`, {
      method,
      body,
      headers: { ...headers(way, method), ...(kind ? { "Content-Type": kind } : {}) },
      // A link is asked for without the session of whoever else uses this browser.
      credentials: way.token ? "omit" : "same-origin",
      cache: "no-store",
    });
  } catch {
    throw new Unreached();
  }
  if (got.status >= 500) throw new Unreached();
  if (!got.ok) {
    const said = (await got.json().catch(() => null)) as { detail?: string } | null;
    throw new Refused(got.status, said?.detail ?? "The studio answered something odd. Try again.");
  }
  return got;
}

const json = async <T>(got: Promise<Response>) => (await (await got).json()) as T;

export const readTest = (way: Way) => json<Schemas["TestPage"]>(ask(way, "GET", "/test"));
export const readMaking = (way: Way, id: string) => json<Making>(ask(way, "GET", `/makings/${id}`));
export const readFigure = (way: Way, id: string) => json<Figure>(ask(way, "POST", `/makings/${id}/figure`));
export const readEdition = async (way: Way, id: string) =>
  (await ask(way, "GET", `/makings/${id}/edition`)).text();

export const sync = (way: Way, id: string, events: LogEvent[], known: number) =>
  json<Synced>(
    ask(way, "POST", `/makings/${id}/sync`, JSON.stringify({ events, known }), "application/json"),
  );

export async function sendPicture(way: Way, id: string, picture: string, file: Blob): Promise<void> {
  const form = new FormData();
  form.append("file", file, "picture");
  await ask(way, "POST", `/makings/${id}/pictures/${picture}`, form);
}

export const forget = (way: Way, id: string) => ask(way, "DELETE", `/makings/${id}/log`);
