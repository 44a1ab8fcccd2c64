import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Navigate, Route, Routes, useLocation, useNavigate } from "react-router";
import { problemOf } from "../api/client";
import { PlanView } from "../features/plan/View";
import { kitchenQuery } from "../shared/kitchen";
import { applyTheme } from "../shared/theme";
import { Away } from "./Away";
import { Guard } from "./Guard";
import { PairPage } from "./PairPage";
import { Shell } from "./Shell";

const Bench = lazy(() => import("../features/bench/View").then((m) => ({ default: m.BenchView })));
const Heat = lazy(() => import("../features/heat/View").then((m) => ({ default: m.HeatView })));
const HeatMaterials = lazy(() =>
  import("../features/heat/Materials").then((m) => ({ default: m.MaterialsView })),
);
const ByHand = lazy(() => import("../features/pieces/ByHand").then((m) => ({ default: m.ByHandView })));
const Colour = lazy(() => import("../features/colour/View").then((m) => ({ default: m.ColourView })));
const Temper = lazy(() => import("../features/temper/View").then((m) => ({ default: m.TemperView })));
const Kitchen = lazy(() => import("../features/kitchen/View").then((m) => ({ default: m.KitchenView })));
const Log = lazy(() => import("../features/log/View").then((m) => ({ default: m.LogView })));
const Melt = lazy(() => import("../features/melt/View").then((m) => ({ default: m.MeltView })));
const Moulds = lazy(() => import("../features/moulds/View").then((m) => ({ default: m.MouldsView })));
const Pieces = lazy(() => import("../features/pieces/View").then((m) => ({ default: m.PiecesView })));

const Words = lazy(() => import("../features/words/View").then((m) => ({ default: m.WordsView })));

const KEYS: Record<string, string> = {
  KeyP: "/plan",
  KeyI: "/pieces",
  KeyM: "/moulds",
  KeyH: "/heat",
  KeyE: "/melt",
  KeyT: "/temper",
  KeyC: "/colour",
  KeyB: "/bench",
  KeyL: "/log",
  KeyK: "/kitchen",
};

export function App() {
  const navigate = useNavigate();
  const path = useLocation().pathname.split("/")[1];
  useEffect(() => {
    applyTheme();
    const onKey = (event: KeyboardEvent) => {
      const to = event.altKey && !event.ctrlKey ? KEYS[event.code] : undefined;
      if (!to) return;
      event.preventDefault();
      navigate(to);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate]);
  // a device of the network that is not paired is refused everything but the pairing
  const kitchen = useQuery({ ...kitchenQuery, retry: false });
  const why = kitchen.error ?? kitchen.failureReason;
  const refused = why ? problemOf(why) : null;
  if (refused?.code === "not_paired") return <PairPage />;
  // what is on the page already goes on being useful without the server; an empty page does not
  if (refused?.code === "unreachable" && kitchen.data === undefined) return <Away />;
  return (
    <Shell>
      <Guard key={path}>
        <Suspense fallback={null}>
          <Routes>
            <Route path="/" element={<Navigate to="/plan" replace />} />
            <Route path="/plan/:id?" element={<PlanView />} />
            <Route path="/pieces/by-hand" element={<ByHand />} />
            <Route path="/pieces/:id?" element={<Pieces />} />
            <Route path="/moulds/:id?" element={<Moulds />} />
            <Route path="/heat" element={<Heat />} />
            <Route path="/heat/materials/:id?" element={<HeatMaterials />} />
            <Route path="/melt" element={<Melt />} />
            <Route path="/colour" element={<Colour />} />
            <Route path="/temper" element={<Temper />} />
            <Route path="/bench" element={<Bench />} />
            <Route path="/log/:id?" element={<Log />} />
            <Route path="/kitchen" element={<Kitchen />} />
            <Route path="/words" element={<Words />} />
            <Route path="*" element={<NotHere />} />
          </Routes>
        </Suspense>
      </Guard>
    </Shell>
  );
}

function NotHere() {
  return <p className="p-8 text-xl">There is no such page. Choose a view at the side.</p>;
}
