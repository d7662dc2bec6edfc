/** The page to make from: one making by its address, or all that are on this device. */
import { lazy, Suspense, useEffect, useState } from "react";
import { Bench } from "./bench";
import type { Way } from "./server";
import type { Kept } from "./store";
import { openMaking, whyNot } from "./use-making";

const OnThisDevice = lazy(() => import("./on-this-device").then((m) => ({ default: m.OnThisDevice })));

const Scale = lazy(() => import("./scale").then((m) => ({ default: m.Scale })));

type Address = { way: Way; id: string | null } | null;

/** '/make/own/ID' is the designer's own, '/make/TOKEN' a tester's, '/make/' the device's. */
export function addressOf(path: string): Address {
  const [, , first, second] = path.split("/");
  if (!first || first === "scale") return null;
  if (first === "own") return second ? { way: { token: null }, id: second } : null;
  return { way: { token: decodeURIComponent(first) }, id: null };
}

export function MakingPage() {
  const [address] = useState(() => addressOf(window.location.pathname));
  const [opened, setOpened] = useState<Kept | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  useEffect(() => {
    if (!address) return;
    openMaking(address.way, address.id).then(setOpened, (error: unknown) => setWhy(whyNot(error)));
  }, [address]);
  useEffect(() => {
    if (opened) document.title = `${opened.making.sheet.title} · making`;
  }, [opened]);
  if (!address)
    return (
      <Suspense fallback={null}>
        {window.location.pathname === "/make/scale" ? <Scale /> : <OnThisDevice />}
      </Suspense>
    );
  if (why) return <Closed why={why} />;
  if (!opened) return <main className="m-auto p-6 text-soft">Opening …</main>;
  return <Bench way={address.way} opened={opened} />;
}

function Closed({ why }: { why: string }) {
  return (
    <main className="m-auto max-w-md p-6">
      <h1 className="mb-2 text-2xl">This making is not here</h1>
      <p role="alert" className="border-l-4 border-madder bg-madder-ground px-3 py-2">
        {why}
      </p>
      <p className="mt-4">
        <a className="underline" href="/make/">
          What is on this device
        </a>
      </p>
    </main>
  );
}
