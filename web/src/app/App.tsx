import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Navigate, Route, Routes, useLocation, useNavigate } from "react-router";
import { problemOf } from "../api/client";
import { kitchenQuery, orderListQuery } from "../shared/kitchen";
import { applyTheme } from "../shared/theme";
import { Away } from "./Away";
import { DOORS } from "./doors";
import { Guard } from "./Guard";
import { Shell } from "./Shell";
import { ROUTES } from "./views";

const PairPage = lazy(() => import("./PairPage").then((m) => ({ default: m.PairPage })));

/** Where what once had an address of its own is now. */
const MOVED: [from: string, to: string][] = [
  ["/plan", "/orders"],
  ["/moulds", "/pieces/moulds"],
  ["/pieces/by-hand", "/work-out/by-hand"],
  ["/heat/materials", "/kitchen/materials"],
  ["/heat", "/work-out/heat"],
  ["/melt", "/work-out/melt"],
  ["/temper", "/work-out/temper"],
  ["/colour", "/work-out/colour"],
  ["/words", "/kitchen/words"],
];

export function App() {
  const navigate = useNavigate();
  const path = useLocation().pathname.split("/")[1];
  useEffect(() => {
    applyTheme();
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey) return;
      const door = DOORS.find(({ key }) => event.code === `Key${key}`);
      if (!door) return;
      event.preventDefault();
      navigate(door.to);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate]);
  // a device of the network that is not paired is refused everything but the pairing
  const kitchen = useQuery({ ...kitchenQuery, retry: false });
  const why = kitchen.error ?? kitchen.failureReason;
  const refused = why ? problemOf(why) : null;
  if (refused?.code === "not_paired")
    return (
      <Suspense fallback={null}>
        <PairPage />
      </Suspense>
    );
  // what is on the page already goes on being useful without the server; an empty page does not
  if (refused?.code === "unreachable" && kitchen.data === undefined) return <Away />;
  return (
    <Shell>
      <Guard key={path}>
        <Suspense fallback={null}>
          <Routes>
            <Route path="/" element={<Home />} />
            {ROUTES.map(({ path, View }) => (
              <Route key={path} path={path} element={<View />} />
            ))}
            {MOVED.map(([from, to]) => (
              <Route key={from} path={`${from}/*`} element={<Moved from={from} to={to} />} />
            ))}
            <Route path="*" element={<NotHere />} />
          </Routes>
        </Suspense>
      </Guard>
    </Shell>
  );
}

/** A workshop that has orders opens on them, an empty one on what can be asked at once. */
function Home() {
  const orders = useQuery(orderListQuery).data?.items;
  if (!orders) return null;
  return <Navigate to={orders.length > 0 ? "/orders" : "/work-out"} replace />;
}

function Moved({ from, to }: { from: string; to: string }) {
  const { pathname, search } = useLocation();
  return <Navigate to={to + pathname.slice(from.length) + search} replace />;
}

function NotHere() {
  return <p className="p-8 text-xl">There is no such page. Choose a door at the side.</p>;
}
