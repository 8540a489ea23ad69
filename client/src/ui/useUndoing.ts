import { useCallback, useState } from "react";

import { Refused } from "../api/client";
import { useFresh } from "../api/useFresh";
import { askGarden } from "../queue/asks";
import { useUndoKeys } from "./useUndoKeys";
import { say } from "../texts/say";

/** The undo keys on a page that draws no plan: the last change of the garden is undone or done again. */
export function useUndoing(garden: number) {
  const fresh = useFresh();
  const [refusal, setRefusal] = useState("");
  const step = useCallback(
    (way: "undo" | "redo") => {
      setRefusal("");
      void askGarden(garden, `/${way}`, {}, way)
        .catch((error: unknown) => {
          setRefusal(error instanceof Refused ? error.message : say("ui.noAnswerFromTheServer"));
        })
        .then(() => fresh.everything());
    },
    [garden, fresh],
  );
  const undo = useCallback(() => step("undo"), [step]);
  const redo = useCallback(() => step("redo"), [step]);
  useUndoKeys(undo, redo);
  return { undo, redo, refusal };
}
