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
    // this browser keeps nothing; then the page was not left without a warning
  }
}

/** What pages before could not store; it is here no more afterwards. */
export function takeUpLeft(): Left[] {
  const taken: Left[] = [];
  try {
    for (const key of Object.keys(localStorage).filter((name) => name.startsWith(LEFT))) {
      const left: unknown = JSON.parse(localStorage.getItem(key) ?? "null");
      if (isLeft(left)) taken.push(left);
      localStorage.removeItem(key);
    }
  } catch {
    // nothing can be read here
  }
  return taken.sort((a, b) => a.write.at - b.write.at);
}
