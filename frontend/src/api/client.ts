/** The one way to the server: typed by the API's description, errors in one shape. */
import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** RFC 9457 problem details, as every refused request answers them. */
export type Problem = {
  type: string;
  title: string;
  status: number;
  detail: string;
  field?: string | null;
  errors?: { field: string; message: string }[];
  theirs?: unknown;
  mine?: string;
  etag?: string;
  revision?: number;
};

/** A request that was refused, or that never arrived (status 0). */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get kind(): string {
    return this.problem.type.split("/").pop() ?? "";
  }
}

export const OFFLINE: Problem = {
  type: "/problems/offline",
  title: "offline",
  status: 0,
  detail: "The studio does not answer. What you typed stays here and is saved once it is back.",
};

export function cookie(name: string, from: string = document.cookie): string {
  const found = from.split("; ").find((pair) => pair.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

const MOST_TRIES = 20;

/** Where the studio says that it has no place just now and when it will, ask again then: she waits, and sees no refusal. */
export async function inLine(send: () => Promise<Response>): Promise<Response> {
  for (let left = MOST_TRIES; ; left -= 1) {
    const got = await send();
    const seconds = Number(got.headers.get("Retry-After"));
    if (got.status !== 503 || !seconds || left <= 1) return got;
    // Not all who were told the same come back at the same moment.
    await new Promise((then) => setTimeout(then, seconds * 1000 * (0.5 + Math.random())));
  }
}

/** Send a file as a form; `lost` says what a lost connection means for it. */
export async function postFile<T>(path: string, file: File, lost: Problem = OFFLINE): Promise<T> {
  const body = new FormData();
  body.append("file", file);
  let got: Response;
  try {
    got = await inLine(() =>
      fetch(path, { method: "POST", body, headers: { "X-CSRFToken": cookie("csrftoken") } }),
    );
  } catch {
    throw new Refused(lost);
  }
  const answered: unknown = await got.json().catch(() => null);
  if (!got.ok) throw new Refused(asProblem(answered, got.status));
  return answered as T;
}

/** What an answer that is no success says, to be thrown. */
export function asRefused(said: unknown, status: number): Refused {
  return new Refused(asProblem(said, status));
}

const client = createClient<paths>({
  baseUrl: window.location.origin,
  credentials: "same-origin",
  // Looked up at every request, so that tests can stand in for the studio.
  fetch: (request) => inLine(() => globalThis.fetch(request.clone())),
});
client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("csrftoken"));
    return request;
  },
});

/** A type as the client hands it on: its tuples have become lists. */
type Widened<T> = T extends readonly (infer Item)[]
  ? Widened<Item>[]
  : T extends object
    ? { [Key in keyof T]: Widened<T[Key]> }
    : T;

type Answer<T> = { data?: Widened<T>; error?: unknown; response: Response };

function asProblem(error: unknown, status: number): Problem {
  if (typeof error === "object" && error !== null && "detail" in error) return error as Problem;
  return {
    type: "/problems/broken",
    title: "broken",
    status,
    detail: "The studio answered something odd. Try again.",
  };
}

/**
 * Wait for an answer and hand out its data; throws Refused otherwise.
 * The caller names the schema, and it has to be the one of the path: only its tuples, which the client loses on the
 * way, are taken on trust.
 */
export async function answer<T>(asked: Promise<Answer<NoInfer<T>>>): Promise<T> {
  let got: Answer<T>;
  try {
    got = await asked;
  } catch {
    throw new Refused(OFFLINE);
  }
  if (!got.response.ok) throw new Refused(asProblem(got.error, got.response.status));
  return got.data as T;
}

export const api = client;

/** A refusal in words of our own, to be thrown and shown as the studio's are. */
export function refusal(detail: string): Refused {
  return new Refused({ type: "/problems/invalid", title: "invalid", status: 0, detail });
}

/** The sentence to show for anything that was thrown. */
export function sentence(error: unknown): string {
  return error instanceof Refused
    ? error.problem.detail
    : "Something went wrong here. Reload the page and try again.";
}
