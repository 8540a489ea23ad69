import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type { Garden, Schemas } from "../api/client";
import { queue } from "./queue";
import { EDITS } from "./writes";

const GARDEN = /^\/api\/gardens\/(\d+)\/(undo|redo|import|history\/\d+\/restore)$/;

/** Tells the queue who is signed in, and the pages what has got there; true once what was kept is read. */
export function useQueueRoom(name: string | null | undefined): boolean {
  const queries = useQueryClient();
  const [ready, setReady] = useState(false);
  useEffect(() => void queue.ready.then(() => setReady(true)), []);
  useEffect(() => {
    if (name !== undefined) queue.signedIn(name);
  }, [name]);
  useEffect(
    () =>
      queue.onDone((write, answer) => {
        const fresh =
          write.about === EDITS
            ? (answer as Schemas["EditsOut"]).garden
            : GARDEN.test(write.path)
              ? (answer as Garden)
              : null;
        if (fresh) {
          queries.setQueryData(["garden", fresh.id], fresh);
          void queries.invalidateQueries({ queryKey: ["structure"] });
          void queries.invalidateQueries({ queryKey: ["parts"] });
        } else void queries.invalidateQueries({ queryKey: ["garden"] });
        if (write.about.startsWith("structure/"))
          queries.setQueryData(["structure", (answer as Schemas["StructureOut"]).id], answer);
        void queries.invalidateQueries({ queryKey: ["gardens"] });
        void queries.invalidateQueries({ queryKey: ["history"] });
      }),
    [queries],
  );
  return ready;
}
