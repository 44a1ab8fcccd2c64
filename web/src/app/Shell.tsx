import type { ReactNode } from "react";
import { NavLink, useLocation } from "react-router";
import { BenchRail } from "./BenchRail";
import { FirstPath } from "./FirstPath";
import { NoAnswer, Notices } from "./Notices";
import { Outbox } from "./Outbox";

const VIEWS = [
  { to: "/plan", name: "Plan", key: "P" },
  { to: "/pieces", name: "Pieces", key: "I" },
  { to: "/moulds", name: "Moulds", key: "M" },
  { to: "/heat", name: "Heat", key: "H" },
  { to: "/melt", name: "Melt", key: "E" },
  { to: "/temper", name: "Temper", key: "T" },
  { to: "/colour", name: "Colour", key: "C" },
  { to: "/bench", name: "Bench", key: "B" },
  { to: "/log", name: "Log", key: "L" },
  { to: "/kitchen", name: "Kitchen", key: "K" },
];

/** The frame of every view: where to go on the left, the live bench below. */
export function Shell({ children }: { children: ReactNode }) {
  const bench = useLocation().pathname.startsWith("/bench");
  return (
    <div className={`flex h-full flex-col ${bench ? "bench bg-ground text-ink" : ""}`}>
      <div className="flex min-h-0 flex-1 flex-col-reverse sm:flex-row">
        <nav
          aria-label="Views"
          className="flex shrink-0 overflow-x-auto bg-umber text-[#f6f1ea] sm:w-[5.25rem] sm:flex-col"
        >
          <Wordmark />
          {VIEWS.map((view) => (
            <NavLink
              key={view.to}
              to={view.to}
              title={`${view.name} (Alt+${view.key})`}
              className={({ isActive }) =>
                `flex-1 border-transparent px-0.5 py-3 text-center text-[0.78rem] sm:px-1 sm:text-[0.95rem] sm:flex-none sm:border-l-4 sm:py-4 ${isActive ? "bg-umber-2 font-bold sm:border-[#63d2d6]" : "text-[#d9cfc5] hover:bg-umber-2"}`
              }
            >
              {view.name}
            </NavLink>
          ))}
        </nav>
        <main className="min-h-0 min-w-0 flex-1 overflow-auto">
          {bench ? <NoAnswer /> : <Notices />}
          {!bench && <FirstPath />}
          {children}
        </main>
      </div>
      {!bench && <Outbox />}
      {!bench && <BenchRail />}
    </div>
  );
}

function Wordmark() {
  return (
    <div className="hidden px-2 pt-4 pb-5 text-center sm:block">
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
