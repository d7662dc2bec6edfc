import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, render, renderHook, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Design } from "./design";
import {
  allUnsent,
  anyUnsent,
  dropUnsent,
  holdUnsent,
  keepFor,
  keepUnsent,
  storeIsFull,
  unsentPage,
  unsentText,
  wipeUnsent,
} from "./unsent";
import { UnsentNotice } from "./unsent-notice";
import { useUnsent } from "./use-unsent";

const TEXT = { kind: "text" as const, part: "abcd", text: "R1: 6 sc", etag: "v1" };
const PAGE = { kind: "page" as const, page: "brief" as const, base: 4, data: { intro: "A moth." } };
const DESIGN = { id: 3, parts: [{ key: "abcd", name: "Body" }] } as unknown as Design;

let status = 0;
const asked: string[] = [];

function Frame({ children }: { children: ReactNode }) {
  return (
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>{children}</MemoryRouter>
    </QueryClientProvider>
  );
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  keepFor("fern");
  asked.length = 0;
  status = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push(new URL(request.url).pathname);
    if (status === 0) throw new TypeError("no net");
    const type = status < 400 ? "application/json" : "application/problem+json";
    return new Response(JSON.stringify({ status, detail: "Changed meanwhile.", etag: "t1" }), {
      status,
      headers: { "Content-Type": type },
    });
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe("what waits in this browser", () => {
  it("is kept by design, part and page, and let go of when it is sent", () => {
    keepUnsent(3, TEXT);
    keepUnsent(3, PAGE);
    keepUnsent(4, { ...TEXT, text: "another design" });
    expect(unsentText(3, "abcd")).toEqual(TEXT);
    expect(unsentPage(3, "brief")).toEqual(PAGE);
    expect(allUnsent(3)).toHaveLength(2);
    dropUnsent(3, TEXT);
    expect(allUnsent(3)).toEqual([PAGE]);
    expect(unsentText(4, "abcd")?.text).toBe("another design");
  });
  it("is hers alone, and nobody else's on the same machine", () => {
    keepUnsent(3, TEXT);
    keepFor("nettle");
    expect(allUnsent(3)).toEqual([]);
    expect(anyUnsent()).toBe(false);
    keepFor("fern");
    expect(anyUnsent()).toBe(true);
    wipeUnsent();
    expect(anyUnsent()).toBe(false);
  });
  it("takes over what waited under the older names", () => {
    localStorage.setItem("spirrel-draft-fern-3-abcd", JSON.stringify({ text: "R1: 7 sc", etag: "v2" }));
    localStorage.setItem("spirrel-draft-fern-3-ffff", "{broken");
    keepFor("fern");
    expect(localStorage.getItem("spirrel-draft-fern-3-ffff")).toBe("{broken");
    expect(localStorage.getItem("spirrel-draft-fern-3-abcd")).toBeNull();
    expect(unsentText(3, "abcd")).toEqual({ kind: "text", part: "abcd", text: "R1: 7 sc", etag: "v2" });
  });
  it("says when this browser can keep no more", () => {
    vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(keepUnsent(3, TEXT)).toBe(false);
    expect(storeIsFull()).toBe(true);
    vi.restoreAllMocks();
    expect(keepUnsent(3, TEXT)).toBe(true);
  });
  it("that is no such thing is passed over", () => {
    localStorage.setItem("spirrel-unsent-fern-3-text-abcd", "not json");
    expect(unsentText(3, "abcd")).toBeNull();
    expect(allUnsent(3)).toEqual([]);
  });
});

describe("sending what waits", () => {
  it("goes on from any stop until the studio answers", async () => {
    keepUnsent(3, TEXT);
    const { result } = renderHook(() => useUnsent(3), { wrapper: Frame });
    await wait(0);
    expect(result.current.waiting).toBe(1);
    status = 200;
    await wait(3100);
    expect(result.current.waiting).toBe(0);
    expect(allUnsent(3)).toEqual([]);
    expect(asked.at(-1)).toBe("/api/designs/3/parts/abcd/typed");
  });
  it("leaves alone what an open screen sends itself", async () => {
    keepUnsent(3, TEXT);
    const letGo = holdUnsent(3, "text-abcd");
    status = 200;
    const { result } = renderHook(() => useUnsent(3), { wrapper: Frame });
    await wait(3100);
    expect(asked).toEqual([]);
    expect(result.current.waiting).toBe(0);
    letGo();
    await wait(3100);
    expect(asked).toHaveLength(1);
  });
  it("keeps what another window wrote over, and says where to choose", async () => {
    keepUnsent(3, TEXT);
    keepUnsent(3, PAGE);
    status = 409;
    render(<UnsentNotice design={DESIGN} />, { wrapper: Frame });
    await wait(0);
    expect(screen.getByRole("status").textContent).toMatch(/Changed in another window meanwhile: .*Body/);
    expect(screen.getByRole("link", { name: "the brief page" }).getAttribute("href")).toBe(
      "/designs/3/brief",
    );
    expect(allUnsent(3)).toHaveLength(2);
  });
});
