const RELOADED = "ascent-reloaded";
const AGAIN_MS = 60_000;
const LOST = /dynamically imported module|module script failed|Unable to preload|error loading/i;

/** Whether an error says that a file of the program is gone, as after an upgrade. */
export const lostChunk = (error: unknown) => error instanceof Error && LOST.test(error.message);

/** Reload the page, unless it was reloaded for this just now; the answer tells which. */
export function reloadOnce(): boolean {
  try {
    if (Date.now() - Number(sessionStorage.getItem(RELOADED) ?? 0) < AGAIN_MS) return false;
    sessionStorage.setItem(RELOADED, String(Date.now()));
  } catch {
    return false; // nothing would tell the next page that it was tried
  }
  window.location.reload();
  return true;
}
