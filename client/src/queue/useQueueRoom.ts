import { useEffect, useState } from "react";

import { useFresh } from "../api/useFresh";
import { isEditsOut, isGarden, isStructureOut } from "./answers";
import { queue } from "./queue";
import { editsOf } from "./writes";

const EDITED = /^\/api\/gardens\/(\d+)\/edits(?:\/photos)?$/;
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
        const edited = EDITED.exec(write.path)?.[1];
        if (edited && isEditsOut(answer)) fresh.changed(Number(edited), answer.changed);
        else if (GARDEN.test(write.path) && isGarden(answer)) fresh.garden(answer);
        else void fresh.again("garden");
        if (write.about.startsWith("structure/") && isStructureOut(answer)) fresh.structure(answer);
        void fresh.again("gardens", "history");
        if (editsOf(write).some((edit) => edit.kind === "entry"))
          void fresh.again("log", "week", "year", "life", "lessons", "years");
      }),
    [fresh],
  );
  return ready;
}
