import { useEffect, useState } from "react";

import type { Garden, Schemas } from "../api/client";
import { useFresh } from "../api/useFresh";
import { queue } from "./queue";
import { EDITS } from "./writes";

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
        const garden =
          write.about === EDITS
            ? (answer as Schemas["EditsOut"]).garden
            : GARDEN.test(write.path)
              ? (answer as Garden)
              : null;
        if (garden) {
          fresh.garden(garden);
        } else void fresh.again("garden");
        if (write.about.startsWith("structure/")) fresh.structure(answer as Schemas["StructureOut"]);
        void fresh.again("gardens", "history");
      }),
    [fresh],
  );
  return ready;
}
