/* The app's own files for when the network is gone: pages from the network first, files by name from here first.
   What the server says is never kept here. */
const KEPT = "umber-pebble-files-1";

self.addEventListener("install", (event) => {
  event.waitUntil(caches.open(KEPT).then((kept) => kept.add("/")));
  self.skipWaiting();
});
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

const keep = async (request, answer) => {
  if (answer.ok) (await caches.open(KEPT)).put(request, answer.clone());
  return answer;
};

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const path = new URL(request.url).pathname;
  if (request.method !== "GET" || path.startsWith("/api/")) return;
  if (request.mode === "navigate") {
    event.respondWith(
      fetch(request).then(
        (answer) => keep("/", answer),
        () => caches.match("/"),
      ),
    );
  } else {
    event.respondWith(caches.match(request).then((kept) => kept ?? fetch(request).then((answer) => keep(request, answer))));
  }
});
