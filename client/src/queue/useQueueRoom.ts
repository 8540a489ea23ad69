import { useEffect, useState } from "react";

import { useFresh } from "../api/useFresh";
import { isEditsOut, isGarden, isStructureOut } from "./answers";
import { queue } from "./queue";

const GARDEN = /^\/api\/gardens\/(\d+)\/(undo|redo|import|history\/\d+\/restore)$/;

/** Tells the queue who is signed in, and the pages what has got there; true once what was kept is read. */
export function useQueueRoom(name: string | null | undefined): boolean {
  const fresh = useFresh();
  const [ready, setReady] = useState(false);
  useEffect(() => void queue.ready.then(() => setReady(true)), []);
  useEffect(() => {
    if (name !== undefined) queue.signedIn(name);
  }, [name]);
  useEffect(
    () =>
      queue.onDone((write, answer) => {
        const garden = isEditsOut(answer)
          ? answer.garden
          : GARDEN.test(write.path) && isGarden(answer)
            ? answer
            : null;
        if (garden) {
          fresh.garden(garden);
        } else void fresh.again("garden");
        if (write.about.startsWith("structure/") && isStructureOut(answer)) fresh.structure(answer);
        void fresh.again("gardens", "history");
      }),
    [fresh],
  );
  return ready;
}
