export const SAID = "ascent-said-"; // as the service worker names it

/** Delete what the server said to an account whose time here has ended. */
export async function forgetSaid(): Promise<void> {
  if (!("caches" in window)) return;
  const names = (await caches.keys()).filter((name) => name.startsWith(SAID));
  await Promise.all(names.map((name) => caches.delete(name)));
}
