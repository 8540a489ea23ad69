import { SAID } from "./forgetSaid";

const REST_MS = 3000; // so that many changes one after another are kept once
const waiting = new Map<string, ReturnType<typeof setTimeout>>();

/**
 * Keep what is known at an address for when there is no line, where the page has put it together from answers
 * that the service worker saw one by one.
 */
export function keepSaid(path: string, data: () => unknown): void {
  if (!("caches" in window) || !navigator.serviceWorker.controller) return;
  clearTimeout(waiting.get(path));
  waiting.set(
    path,
    setTimeout(() => {
      waiting.delete(path);
      void kept(path, data());
    }, REST_MS),
  );
}

async function kept(path: string, data: unknown): Promise<void> {
  const name = (await caches.keys()).find((each) => each.startsWith(SAID));
  if (!name || data === undefined) return;
  const headers = { "Content-Type": "application/json" };
  const cache = await caches.open(name);
  await cache
    .put(new URL(path, window.location.origin), new Response(JSON.stringify(data), { headers }))
    .catch(() => undefined); // no room: it is asked for when there is a line
}
