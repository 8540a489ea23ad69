// Keeps what was opened for when there is no line: the client's files, the page, and what the server said last.
// It touches nothing but GET; what is written waits in the client's own queue.
const SHELL = "ascent-shell-{{ version }}";
const SAID = "ascent-said";
const FILES = {{ files|safe }};
const PAGE = "/";
const FILE = /\.(csv|pdf|svg|dxf|glb|ics|json)$/;

self.addEventListener("install", (event) => {
  event.waitUntil(
    caches
      .open(SHELL)
      .then((cache) => cache.addAll(FILES))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((name) => name !== SHELL && name !== SAID).map((name) => caches.delete(name))),
      )
      .then(() => self.clients.claim()),
  );
});

async function keptFirst(request) {
  const kept = await caches.match(request, { ignoreVary: true });
  return kept ?? fetch(request);
}

async function saidFirst(request, key) {
  try {
    const answer = await fetch(request);
    if (answer.ok) {
      const cache = await caches.open(SAID);
      await cache.put(key, answer.clone());
    }
    return answer;
  } catch (error) {
    const kept = await caches.match(key, { ignoreVary: true });
    if (kept) return kept;
    throw error;
  }
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin || FILE.test(pathname)) return;
  if (pathname.startsWith("/static/")) event.respondWith(keptFirst(request));
  else if (request.mode === "navigate") event.respondWith(saidFirst(request, PAGE));
  else if (pathname.startsWith("/api/")) event.respondWith(saidFirst(request, request.url));
});
