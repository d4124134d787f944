import { Bike, ChartNoAxesGantt, FileText, Map, PencilLine, Scale, Settings, Sun } from "lucide-react";
import { lazy, Suspense, useEffect, useRef, useState, type ComponentType } from "react";
import { Form, href, NavLink, Outlet, useLocation, useNavigate, useNavigation } from "react-router";
import { More } from "#ui/more";
import { isLetterPress } from "#app/ui/letterKeys";
import { Announcer } from "#ui/announce";
import { FillIn } from "#ui/forms/fillIn";
import { DuskSwitch } from "#ui/theme";
import { TakeAwayPanel } from "#ui/takeAway/panel";
import { UndoNotice } from "#ui/undoNotice";
import { UnitSwitch } from "#ui/unitSwitch";
import { NetworkNotice } from "./network/notice";
import { NewVersion } from "#ui/version";
import { useWho } from "#app/ui/who";

interface Station {
  readonly to: string;
  readonly name: string;
  readonly number: number | null;
  readonly Icon: ComponentType<{ className?: string; "aria-hidden"?: boolean }>;
}

/** Stations in the order of the work. */
const STATIONS: readonly Station[] = [
  { to: href("/"), name: "Today", number: null, Icon: Sun },
  { to: href("/bikes"), name: "Bikes", number: 1, Icon: Bike },
  { to: href("/plan"), name: "Plan", number: 2, Icon: Map },
  { to: href("/ride"), name: "Ride", number: 3, Icon: PencilLine },
  { to: href("/strip"), name: "Strip", number: 4, Icon: ChartNoAxesGantt },
  { to: href("/compare"), name: "Compare", number: 5, Icon: Scale },
  { to: href("/sheet"), name: "Sheet", number: 6, Icon: FileText },
];
/** What a phone's bar shows; the rest is under More. */
const ON_THE_BAR = ["/", "/plan", "/ride", "/strip"];
const SETTINGS: Station = { to: href("/settings"), name: "Settings", number: null, Icon: Settings };

/** The stations somebody has: a phone in the field has its rides. */
function useStations(): readonly Station[] {
  const { kind } = useWho();
  return kind === "phone" ? STATIONS.filter(({ to }) => to === "/ride") : STATIONS;
}

function useKeys(showKeys: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    let leader = false;
    const onKey = (event: KeyboardEvent) => {
      if (!isLetterPress(event)) return;
      if (event.key === "?") showKeys();
      else if (leader) {
        const station = STATIONS.find(({ number }) => String(number) === event.key);
        if (station) void navigate(station.to);
        if (event.key === "t") void navigate(href("/"));
      }
      leader = event.key === "g";
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, showKeys]);
}

function RailLink({ to, name, number }: Station) {
  return (
    <NavLink
      to={to}
      end={to === "/"}
      className={({ isActive }) =>
        `flex min-h-10 items-center gap-3 border-r-2 px-4 no-underline ${isActive ? "border-spruce font-bold text-spruce" : "border-transparent text-ink hover:bg-hover"}`
      }
    >
      <span className="w-3 text-sm text-quiet">{number}</span>
      {name}
    </NavLink>
  );
}

function BarLink({ to, name, Icon }: Station) {
  return (
    <NavLink
      to={to}
      end={to === "/"}
      className={({ isActive }) =>
        `flex flex-1 flex-col items-center gap-0.5 border-t-2 py-2 text-xs no-underline ${isActive ? "border-spruce font-bold text-spruce" : "border-transparent text-ink"}`
      }
    >
      <Icon className="size-5" aria-hidden />
      {name}
    </NavLink>
  );
}

/** After going to another page its heading has the focus, unless a field of it has taken it. */
function useHeadingFocus(): void {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    const page = document.getElementById("page");
    const active = document.activeElement;
    if (active && active !== document.body && page?.contains(active)) return;
    page?.querySelector("h1")?.focus({ preventScroll: true });
  }, [pathname]);
}

/** At the demo desk: what it is, and the way to one's own. */
function DemoNotice() {
  return (
    <Form
      method="post"
      action={href("/demo")}
      className="flex flex-wrap items-center gap-x-3 border-b border-rule bg-sheet px-4 py-1.5 text-sm md:px-6 print:hidden"
      role="region"
      aria-label="Demo desk"
    >
      <span>
        <b>Demo desk.</b> Every bike, rider and figure here is invented. Change what you like.
      </span>
      <button name="intent" value="leave" className="button button-plain">
        Go to my own desk
      </button>
    </Form>
  );
}

/** Fetched when it is asked for: the first page is light. */
const KeyList = lazy(() => import("./overlays/keyList"));

/** The frame of every page: the rail on a desk, the bottom bar on a phone, and the list of keys. */
export default function Frame() {
  const [keysShown, setKeysShown] = useState(false);
  const busy = useNavigation().state !== "idle";
  const stations = useStations();
  const who = useWho();
  const { pathname } = useLocation();
  // What somebody does for themselves stands on their own page.
  const readsOnly = who.kind === "person" && !who.mayChange && pathname !== href("/settings/you");
  useHeadingFocus();
  useKeys(() => setKeysShown(true));
  return (
    <div className="flex min-h-screen">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:bg-sheet focus:p-2">
        Skip to the page
      </a>
      <nav
        aria-label="Stations"
        className="sticky top-0 hidden h-screen w-36 overflow-y-auto shrink-0 flex-col border-r border-rule md:flex print:hidden"
      >
        <div className="px-4 pt-5 pb-4 text-lg font-bold">Barometron</div>
        {stations.map((station) => (
          <RailLink key={station.to} {...station} />
        ))}
        <div className="mt-auto pb-3">
          <div className="px-4 py-2">
            <UnitSwitch />
          </div>
          {who.kind === "person" ? (
            <NavLink to={href("/settings/you")} className="block truncate px-4 py-1 text-sm text-quiet">
              {who.name}
            </NavLink>
          ) : null}
          {who.kind === "phone" ? null : <RailLink {...SETTINGS} />}
          <DuskSwitch className="mr-3 ml-8 min-h-6 text-sm text-quiet underline underline-offset-3" />
          <button
            type="button"
            className="min-h-6 text-sm text-quiet underline underline-offset-3"
            onClick={() => setKeysShown(true)}
          >
            Keys
          </button>
        </div>
      </nav>
      {busy ? <div className="under-way print:hidden" aria-hidden /> : null}
      <main
        id="page"
        className="min-w-0 flex-1 pb-20 md:pb-0"
        aria-busy={busy}
        data-reads={readsOnly ? "" : undefined}
      >
        {who.atDemo ? <DemoNotice /> : null}
        <Announcer />
        <NetworkNotice />
        {readsOnly ? (
          <p className="border-b border-rule px-4 py-2 text-sm text-quiet print:hidden md:px-6">
            You read this desk: its editors change it.
          </p>
        ) : null}
        <NewVersion />
        <UndoNotice />
        <FillIn />
        <Outlet />
        <TakeAwayPanel busy={busy} />
      </main>
      <nav
        aria-label="Stations"
        className="fixed inset-x-0 bottom-0 z-10 flex border-t border-rule bg-bone md:hidden print:hidden"
      >
        {stations
          .filter(({ to }) => ON_THE_BAR.includes(to))
          .map((station) => (
            <BarLink key={station.to} {...station} />
          ))}
        {who.kind === "phone" ? null : (
          <More to={[...stations.filter(({ to }) => !ON_THE_BAR.includes(to)), SETTINGS]} />
        )}
      </nav>
      {keysShown ? (
        <Suspense fallback={null}>
          <KeyList onClose={() => setKeysShown(false)} />
        </Suspense>
      ) : null}
    </div>
  );
}
