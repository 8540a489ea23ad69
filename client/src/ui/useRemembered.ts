import { type Dispatch, type SetStateAction, useEffect, useState } from "react";

const kept = new Map<string, unknown>();

/** A state that a page finds again when somebody comes back to it; a reload forgets it. */
export function useRemembered<T>(key: string, initial: () => T): [T, Dispatch<SetStateAction<T>>] {
  const [now, set] = useState<T>(() => (kept.has(key) ? (kept.get(key) as T) : initial()));
  useEffect(() => {
    kept.set(key, now);
  }, [key, now]);
  return [now, set];
}
