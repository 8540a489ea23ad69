import { useMemo, useSyncExternalStore } from "react";

import { held, type Text } from "./held";
import { queue, type Line } from "./queue";
import { type Write } from "./writes";

const line = () => queue.line;

/** What is kept of a lane, in order. */
export function useWrites(lane: string): readonly Write[] {
  const all = useSyncExternalStore(queue.listen, queue.now);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- whose they are is the queue's own, and it tells of it as of a change
  return useMemo(() => queue.mine().filter((write) => write.lane === lane), [all, lane]);
}

export const useLine = (): Line => useSyncExternalStore(queue.listen, line);

/** Quantities that were written and are not read yet. */
export const useHeld = (): readonly Text[] => useSyncExternalStore(held.listen, held.now);
