import { type ComponentType, lazy } from "react";
import { matchPath } from "react-router";

/** The view behind each address, loaded when it is first needed. */
const VIEWS: Record<string, () => Promise<ComponentType>> = {
  "/orders/:id?/:view?": () => import("../features/plan/View").then((m) => m.PlanView),
  "/pieces/moulds/:id?": () => import("../features/moulds/View").then((m) => m.MouldsView),
  "/pieces/:id?": () => import("../features/pieces/View").then((m) => m.PiecesView),
  "/work-out": () => import("../features/ask/View").then((m) => m.WorkOutView),
  "/work-out/heat": () => import("../features/heat/View").then((m) => m.HeatView),
  "/work-out/melt": () => import("../features/melt/View").then((m) => m.MeltView),
  "/work-out/temper": () => import("../features/temper/View").then((m) => m.TemperView),
  "/work-out/colour": () => import("../features/colour/View").then((m) => m.ColourView),
  "/work-out/by-hand": () => import("../features/pieces/ByHand").then((m) => m.ByHandView),
  "/bench": () => import("../features/bench/View").then((m) => m.BenchView),
  "/log/:id?": () => import("../features/log/View").then((m) => m.LogView),
  "/kitchen": () => import("../features/kitchen/View").then((m) => m.KitchenView),
  "/kitchen/materials/:id?": () => import("../features/heat/Materials").then((m) => m.MaterialsView),
  "/kitchen/colours": () => import("../features/colour/AtHandView").then((m) => m.ColoursAtHandView),
  "/kitchen/people": () => import("../features/kitchen/People").then((m) => m.PeopleView),
  "/kitchen/devices": () => import("../features/kitchen/Devices").then((m) => m.DevicesView),
  "/kitchen/words": () => import("../features/words/View").then((m) => m.WordsView),
};

export const ROUTES = Object.entries(VIEWS).map(([path, load]) => ({
  path,
  View: lazy(async () => ({ default: await load() })),
}));

/** Begins to load the view of an address, before anything is drawn. */
export function loadAhead(address: string): void {
  const found = Object.entries(VIEWS).find(([path]) => matchPath(path, address));
  // the view says so itself if it cannot be loaded
  found?.[1]().catch(() => undefined);
}
