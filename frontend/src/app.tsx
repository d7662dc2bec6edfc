/** The application: who is signed in, the header, and the screens. */
import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Lamp, LogOut, SquareTerminal, Sun, UserRound } from "lucide-react";
import { lazy, Suspense, useMemo, useState } from "react";
import { BrowserRouter, Link, Navigate, NavLink, Route, Routes, useNavigate } from "react-router";
import { AccountDialog } from "./accounts/account-dialog";
import { Door } from "./accounts/door";
import { type Me, useAccount, useSession } from "./accounts/session";
import { Refused, sentence } from "./api/client";
import { DesignLayout } from "./design/layout";
import { anyUnsent, keepFor } from "./design/unsent";
import { Shelf } from "./shelf/shelf";
import { Broken } from "./ui/broken";
import { Button, Empty, IconButton } from "./ui/controls";
import { setGround, useGround } from "./ui/ground";
import { Keys, useCommands, useOpenPalette } from "./ui/keys";
import { Overlays, useSay } from "./ui/overlays";

const BasketPage = lazy(() => import("./yarns/basket-page").then((m) => ({ default: m.BasketPage })));
const BriefStop = lazy(() => import("./brief/brief").then((m) => ({ default: m.BriefStop })));
const GaugeStop = lazy(() => import("./gauge/gauge").then((m) => ({ default: m.GaugeStop })));
const Shapes = lazy(() => import("./shapes/shapes").then((m) => ({ default: m.Shapes })));
const Rounds = lazy(() => import("./rounds/rounds").then((m) => ({ default: m.Rounds })));
const AssemblyStop = lazy(() => import("./assembly/assembly").then((m) => ({ default: m.AssemblyStop })));
const SizesStop = lazy(() => import("./sizes/sizes").then((m) => ({ default: m.SizesStop })));
const BookletStop = lazy(() => import("./booklet/booklet").then((m) => ({ default: m.BookletStop })));
const BasesStop = lazy(() => import("./bases/bases").then((m) => ({ default: m.BasesStop })));
const PiecesPage = lazy(() => import("./pieces/pieces-page").then((m) => ({ default: m.PiecesPage })));
const ProvingStop = lazy(() => import("./proving/proving").then((m) => ({ default: m.ProvingStop })));

function makeClient(): QueryClient {
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({
      onError: (error) => {
        if (error instanceof Refused && error.problem.status === 401)
          void client.invalidateQueries({ queryKey: ["session"] });
      },
    }),
    defaultOptions: {
      queries: {
        retry: (tries, error) => tries < 2 && error instanceof Refused && error.problem.status === 0,
      },
    },
  });
  return client;
}

function Header({ me }: { me: Me }) {
  const ground = useGround();
  const account = useAccount();
  const navigate = useNavigate();
  const palette = useOpenPalette();
  const [open, setOpen] = useState(false);
  const say = useSay();
  const leave = () => {
    if (anyUnsent())
      say(
        "Something you typed has not reached the studio yet. Stay until it has, or it would be lost on this machine.",
        true,
      );
    else account.mutate({ do: "out" }, { onSuccess: () => void takeMakingsAway(say) });
  };
  const commands = useMemo(
    () => [
      {
        name: ground === "lamplight" ? "Daylight" : "Lamplight",
        run: () => setGround(ground === "lamplight" ? "daylight" : "lamplight"),
      },
      { name: "Your studio", run: () => setOpen(true) },
      { name: "Pieces", run: () => navigate("/pieces") },
      { name: "Yarn basket", run: () => navigate("/yarns") },
    ],
    [ground, navigate],
  );
  useCommands(commands);
  const link = ({ isActive }: { isActive: boolean }) =>
    `whitespace-nowrap rounded px-1.5 py-1 sm:px-2 ${isActive ? "bg-woad-ground font-semibold" : "hover:bg-sunk"}`;
  return (
    <header className="flex flex-wrap items-center gap-x-1 border-b border-line px-2 py-1.5 sm:gap-x-3 sm:px-4 no-print">
      <Link to="/" className="flex items-center gap-1.5 font-title text-xl font-semibold">
        <svg viewBox="4 4 26 26" className="size-6" aria-hidden="true">
          <path
            d="M16 16c0-1.6 2.4-1.6 2.4.4 0 2.8-4.8 2.8-4.8-.6 0-4.4 7.4-4.4 7.4.8 0 6-10 6-10-1 0-7.4 12.6-7.4 12.6 1.2"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2.2"
            strokeLinecap="round"
          />
          <circle cx="23.6" cy="16.8" r="2.2" fill="var(--madder)" />
        </svg>
        <span className="max-sm:sr-only">Spirrel</span>
      </Link>
      <nav aria-label="Main" className="flex flex-1 sm:gap-1">
        <NavLink to="/" end className={link}>
          Shelf
        </NavLink>
        <NavLink to="/pieces" className={link}>
          Pieces
        </NavLink>
        <NavLink to="/yarns" className={link}>
          Yarn basket
        </NavLink>
      </nav>
      <span className="hidden text-soft md:inline">{me.studio}</span>
      <span className="max-sm:hidden">
        <IconButton label="Commands" title="Commands (Ctrl + K)" onClick={palette}>
          <SquareTerminal size={18} />
        </IconButton>
      </span>
      <IconButton
        label={ground === "lamplight" ? "Daylight" : "Lamplight"}
        onClick={() => setGround(ground === "lamplight" ? "daylight" : "lamplight")}
      >
        {ground === "lamplight" ? <Sun size={18} /> : <Lamp size={18} />}
      </IconButton>
      <IconButton label="Your studio" onClick={() => setOpen(true)}>
        <UserRound size={18} />
      </IconButton>
      <IconButton label="Sign out" onClick={leave}>
        <LogOut size={18} />
      </IconButton>
      {open && <AccountDialog me={me} open onOpen={setOpen} />}
    </header>
  );
}

/** What of her own makings lies on this device goes with her; what waits for a net stays, and is told. */
async function takeMakingsAway(say: (text: string) => void) {
  const waiting = await import("./making/store").then(({ dropOwn }) => dropOwn()).catch(() => 0);
  if (waiting)
    say(
      `${waiting === 1 ? "A making stays" : `${waiting} makings stay`} on this device, as notes of it wait for a net: open it signed in to send them.`,
    );
}

function Lost() {
  return (
    <main className="p-10">
      <h1 className="sr-only">Spirrel</h1>
      <Empty title="Nothing lives at this address">
        <Button asChild>
          <Link to="/">Back to the shelf</Link>
        </Button>
      </Empty>
    </main>
  );
}

function Inside({ me }: { me: Me }) {
  // Before any screen is made: each looks for what waits of hers.
  useState(() => keepFor(me.username));
  return (
    <Keys>
      <button
        type="button"
        className="sr-only focus:not-sr-only focus:absolute focus:left-2 focus:top-2 focus:z-50 focus:rounded-md focus:border focus:border-strong focus:bg-panel focus:px-3 focus:py-1.5"
        onClick={() => document.getElementById("main")?.focus()}
      >
        Skip to the main part
      </button>
      <Header me={me} />
      <Suspense
        fallback={
          <p className="p-8 text-soft" role="status" data-opening="">
            Opening …
          </p>
        }
      >
        <Routes>
          <Route
            path="/"
            element={
              <Broken key="shelf">
                <Shelf />
              </Broken>
            }
          />
          <Route
            path="/yarns"
            element={
              <Broken key="yarns">
                <BasketPage />
              </Broken>
            }
          />
          <Route
            path="/pieces"
            element={
              <Broken key="pieces">
                <PiecesPage />
              </Broken>
            }
          />
          <Route path="/designs/:id" element={<DesignLayout />}>
            <Route index element={<Navigate to="rounds" replace />} />
            <Route path="brief" element={<BriefStop />} />
            <Route path="gauge" element={<GaugeStop />} />
            <Route path="shapes" element={<Shapes />} />
            <Route path="rounds" element={<Rounds />} />
            <Route path="bases" element={<BasesStop />} />
            <Route path="assembly" element={<AssemblyStop />} />
            <Route path="sizes" element={<SizesStop />} />
            <Route path="booklet" element={<BookletStop />} />
            <Route path="proving" element={<ProvingStop />} />
            <Route path="*" element={<Lost />} />
          </Route>
          <Route path="*" element={<Lost />} />
        </Routes>
      </Suspense>
    </Keys>
  );
}

function Gate() {
  const session = useSession();
  if (session.data)
    return session.data.me ? (
      <Inside key={session.data.me.username} me={session.data.me} />
    ) : (
      <Door demo={session.data.demo} />
    );
  return (
    <main className="grid flex-1 place-items-center p-8">
      {session.error ? (
        <Empty title="The studio does not answer">
          <p>{sentence(session.error)}</p>
          <Button onClick={() => void session.refetch()}>Try again</Button>
        </Empty>
      ) : (
        <p role="status" className="text-soft">
          Opening the studio …
        </p>
      )}
    </main>
  );
}

export function App() {
  const [client] = useState(makeClient);
  return (
    <QueryClientProvider client={client}>
      <Overlays>
        <BrowserRouter>
          <Gate />
        </BrowserRouter>
      </Overlays>
    </QueryClientProvider>
  );
}
