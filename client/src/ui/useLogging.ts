import { useSession } from "../api/queries";
import type { EntryChange } from "../api/log";
import { editsWrite } from "../queue/asks";
import { queue } from "../queue/queue";

/** How to write in a garden’s log, whatever the line does: each entry has a key of its own, made here. */
export function useLogging(garden: number) {
  const session = useSession();
  return (change: EntryChange, words: string) =>
    queue.put({
      ...editsWrite(
        garden,
        [
          {
            kind: "entry",
            act: "add",
            key: `log-${crypto.randomUUID()}`,
            change: { at: new Date().toISOString(), who: session.data?.name ?? "", ...change },
          },
        ],
        words,
      ),
      ...(change.pictures && { path: `/api/gardens/${garden}/edits/photos` }),
    });
}
