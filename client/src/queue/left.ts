import type { Write } from "./writes";

const LEFT = "ascent-left/";

/** A write that had no time to be stored as it stands; `before`: an earlier form of it is stored. */
export interface Left {
  write: Write;
  before: boolean;
}

const isLeft = (data: unknown): data is Left =>
  typeof data === "object" && data !== null && "write" in data && "before" in data;

/** Keep what a page that goes away could not store: where writing is done at once. */
export function leave(left: readonly Left[]): void {
  try {
    left.forEach((each) => localStorage.setItem(LEFT + each.write.mark, JSON.stringify(each)));
  } catch {
    // this browser has no room for it, and the page is gone: nobody can be told any more
  }
}

function readLeft(name: string): Left | null {
  try {
    const left: unknown = JSON.parse(localStorage.getItem(name) ?? "null");
    return isLeft(left) ? left : null;
  } catch {
    return null; // half written
  }
}

/** Have what pages before could not store stored, in order; it is here until it has been. */
export async function takeUpLeft(store: (left: Left) => Promise<void>): Promise<void> {
  let names: string[];
  try {
    names = Object.keys(localStorage).filter((name) => name.startsWith(LEFT));
  } catch {
    return; // this browser keeps nothing
  }
  const found = names.map(readLeft).filter((left) => left !== null);
  for (const left of found.sort((a, b) => a.write.at - b.write.at)) await store(left);
  names.forEach((name) => localStorage.removeItem(name));
}
