import { lazy, type ReactNode, Suspense } from "react";
import { Link, NavLink, useLocation } from "react-router";
import { DOORS, type Door, doorOf, roomOf } from "./doors";
import { FindField } from "./FindField";
import { FirstPath } from "./FirstPath";
import { NoAnswer, Notices } from "./Notices";

const BenchRail = lazy(() => import("./BenchRail").then((m) => ({ default: m.BenchRail })));
const Outbox = lazy(() => import("./Outbox").then((m) => ({ default: m.Outbox })));

/** The frame of every view: the doors at the side, the rooms behind the open one above, the live bench below. */
export function Shell({ children }: { children: ReactNode }) {
  const path = useLocation().pathname;
  const bench = path.startsWith("/bench");
  const door = doorOf(path);
  return (
    <div className={`flex h-full flex-col ${bench ? "bench bg-ground text-ink" : ""}`}>
      <div className="flex min-h-0 flex-1 flex-col-reverse sm:flex-row">
        <Doors />
        <main
          className={`min-h-0 min-w-0 flex-1 overflow-x-hidden overflow-y-auto ${door?.rooms.length === 0 && !bench ? "[scrollbar-gutter:stable]" : ""}`}
        >
          {bench ? <NoAnswer /> : <Notices />}
          {door && door.rooms.length > 0 && (
            <div className="flex flex-wrap-reverse items-center justify-between gap-x-8 bg-panel px-7">
              <Rooms door={door} path={path} />
              {path !== "/work-out" && <FindField />}
            </div>
          )}
          {!bench && <FirstPath />}
          {!bench && door?.rooms.length === 0 && (
            <div className="relative z-10 px-7 sm:h-0">
              <div className="sm:absolute sm:top-1 sm:right-7">
                <FindField />
              </div>
            </div>
          )}
          {children}
        </main>
      </div>
      {!bench && (
        <Suspense fallback={null}>
          <Outbox />
          <BenchRail />
        </Suspense>
      )}
    </div>
  );
}

function Doors() {
  return (
    <nav
      aria-label="Doors"
      className="grid shrink-0 grid-cols-6 bg-umber text-[#f6f1ea] sm:flex sm:w-[5.75rem] sm:flex-col sm:overflow-y-auto"
    >
      <Wordmark />
      {DOORS.map((door) => (
        <NavLink
          key={door.to}
          to={door.to}
          title={`${door.name} (Alt+${door.key})`}
          className={({ isActive }) =>
            `flex min-h-16 flex-col items-center justify-center gap-1 border-t-4 px-0.5 pb-1 text-center text-[0.85rem] leading-none whitespace-nowrap sm:text-[0.95rem] sm:min-h-12 sm:max-h-[4.5rem] sm:flex-1 sm:border-t-0 sm:border-l-4 sm:pr-1.5 ${isActive ? "border-[#63d2d6] bg-umber-2 font-bold" : "border-transparent text-[#d9cfc5] hover:bg-umber-2"}`
          }
        >
          <svg
            viewBox="0 0 24 24"
            className="h-6 w-6"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
            strokeLinejoin="round"
            strokeLinecap="round"
            aria-hidden="true"
          >
            {door.mark}
          </svg>
          {door.name}
        </NavLink>
      ))}
    </nav>
  );
}

function Rooms({ door, path }: { door: Door; path: string }) {
  const here = roomOf(door, path);
  return (
    <nav aria-label={`In ${door.name}`} className="flex flex-wrap gap-x-7">
      {door.rooms.map((room) => (
        <Link
          key={room.to}
          to={room.to}
          aria-current={room === here ? "page" : undefined}
          className={`flex min-h-11 items-center border-b-4 text-lg font-bold ${room === here ? "border-glass text-ink" : "border-transparent text-glass hover:border-line"}`}
        >
          {room.name}
        </Link>
      ))}
    </nav>
  );
}

function Wordmark() {
  return (
    <div className="hidden px-2 pt-4 pb-4 text-center sm:block [@media(max-height:30rem)]:hidden">
      <svg viewBox="0 0 32 30" className="mx-auto h-9 w-9" aria-hidden="true">
        <path d="M4 18C3 10 9 4 17 5s12 7 11 13-8 8-14 8S5 24 4 18Z" fill="#63d2d6" />
        <path d="M9 17c1-5 5-8 10-7" fill="none" stroke="#2b1b14" strokeWidth="2.6" strokeLinecap="round" />
      </svg>
      <span className="mt-1 block font-head text-[0.8rem] leading-tight font-bold">
        Umber
        <br />
        Pebble
      </span>
    </div>
  );
}
