// Keeps what was opened for when there is no line: the client's files, the page, and what the server said last.
// It touches nothing but GET; what is written waits in the client's own queue.
const SHELL = "ascent-shell-{{ version }}";
const SAID = "ascent-said-"; // and whose it is: answers of one account only are kept
const MOST = {{ most }}; // answers
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
        Promise.all(names.filter((name) => name !== SHELL && !name.startsWith(SAID)).map((name) => caches.delete(name))),
      )
      .then(() => self.clients.claim()),
  );
});

async function keptFirst(request) {
  const kept = await caches.match(request, { ignoreVary: true });
  return kept ?? fetch(request);
}

/** Keep an answer in the cache of its account; whatever was kept of another is gone. */
async function keep(key, answer) {
  const own = SAID + (answer.headers.get("Ascent-Account") ?? "nobody");
  const others = (await caches.keys()).filter((name) => name.startsWith(SAID) && name !== own);
  await Promise.all(others.map((name) => caches.delete(name)));
  if (!answer.ok) return;
  const cache = await caches.open(own);
  try {
    await cache.put(key, answer.clone());
    const kept = await cache.keys();
    await Promise.all(kept.slice(0, Math.max(kept.length - MOST, 0)).map((old) => cache.delete(old)));
  } catch {
    // no room: the older half makes some, and what cannot be kept even so is not kept in an older form
    const kept = await cache.keys();
    await Promise.all(kept.slice(0, Math.ceil(kept.length / 2)).map((old) => cache.delete(old)));
    await cache.put(key, answer).catch(() => cache.delete(key));
  }
}

async function lastSaid(key) {
  const name = (await caches.keys()).find((each) => each.startsWith(SAID));
  return name && (await caches.open(name)).match(key, { ignoreVary: true });
}

async function onlineFirst(event, key) {
  let answer;
  try {
    answer = await fetch(event.request);
  } catch (error) {
    const kept = await lastSaid(key);
    if (kept) return kept;
    throw error;
  }
  event.waitUntil(keep(key, answer.clone()).catch(() => undefined));
  return answer;
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin || FILE.test(pathname)) return;
  if (pathname.startsWith("/static/")) event.respondWith(keptFirst(request));
  else if (request.mode === "navigate") event.respondWith(onlineFirst(event, PAGE));
  else if (pathname.startsWith("/api/")) event.respondWith(onlineFirst(event, request.url));
});
