/// <reference lib="webworker" />
/**
 * The app's own files for when the network is gone: all of them are brought in once, so that any page can be loaded anew without the
 * network; pages are asked for first, files by name (they carry a mark of what is in them) are taken from here. What the server
 * says is never kept here.
 */
import { registerRoute } from "workbox-routing";
import { CacheFirst, NetworkFirst } from "workbox-strategies";

declare const self: ServiceWorkerGlobalScope;

const FILES = "umber-pebble-files";
const PAGES = "umber-pebble-pages";
const LIST = "/files.json";
const ANSWERS_WITHIN_S = 3;

type Built = Record<string, { file: string; css?: string[]; assets?: string[] }>;

async function listed(): Promise<string[]> {
  const built = (await (await fetch(LIST, { cache: "no-store" })).json()) as Built;
  const names = Object.values(built).flatMap((of) => [of.file, ...(of.css ?? []), ...(of.assets ?? [])]);
  return [...new Set(names)].filter((name) => name !== "offline.js").map((name) => `/${name}`);
}

const files = new CacheFirst({ cacheName: FILES });
const pages = new NetworkFirst({ cacheName: PAGES, networkTimeoutSeconds: ANSWERS_WITHIN_S });
registerRoute(({ url }) => url.pathname.startsWith("/assets/"), files);
// every page is the same one
registerRoute(
  ({ request }) => request.mode === "navigate",
  ({ event }) => pages.handle({ event, request: new Request("/") }),
);

self.addEventListener("install", (event) => {
  event.waitUntil(
    Promise.all([
      listed().then(async (names) => (await caches.open(FILES)).addAll(names)),
      caches.open(PAGES).then((cache) => cache.add("/")),
    ]),
  );
  void self.skipWaiting();
});

self.addEventListener("activate", (event) => {
  event.waitUntil(Promise.all([self.clients.claim(), forget()]));
});

/** Files of versions before, and boxes that are ours no more. */
async function forget(): Promise<void> {
  for (const name of await caches.keys()) if (name !== FILES && name !== PAGES) await caches.delete(name);
  const wanted = new Set(await listed());
  const cache = await caches.open(FILES);
  for (const request of await cache.keys())
    if (!wanted.has(new URL(request.url).pathname)) await cache.delete(request);
}
