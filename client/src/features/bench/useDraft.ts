import { useCallback, useEffect, useRef, useState } from "react";

import { type Draft, type Problem, type Schemas } from "../../api/client";
import { isSaveIn, isStructureConflict, isStructureOut } from "../../queue/answers";
import { queue } from "../../queue/queue";
import { useWrites } from "../../queue/useQueue";
import { aboutStructure, laneOf, type Write } from "../../queue/writes";
import { putAt } from "./putAt";
import { valueAt } from "./valueAt";
import { say } from "../../texts/say";

const MOST_STEPS = 200;
const KEPT_STEPS = 60;
const QUIET_MS = 400;

interface Past {
  back: Draft[];
  now: Draft;
  ahead: Draft[];
  touched: string;
}

/** Changes the draft from what it is at that moment, so that two changes that cross lose nothing. */
export type ChangeDraft = (make: (now: Draft) => Draft, grip?: string) => void;

const store = (id: number) => `ascent-steps-${id}`;
const text = (draft: Draft) => JSON.stringify(draft);
/** A draft that was kept by an older page has nothing of the shed, and no covers. */
const draftOf = (write: Write | undefined): Draft | undefined =>
  write && isSaveIn(write.body) ? { ...write.body.draft, ...lately(write.body.draft) } : undefined;
const lately = (draft: Partial<Draft>): Pick<Draft, "taken" | "covers"> => ({
  taken: draft.taken ?? [],
  covers: draft.covers ?? [],
});
const ofStructure = (start: Schemas["StructureOut"]) =>
  queue.mine().filter((write) => write.about === aboutStructure(start.id));

/**
 * Where the bench begins: with what waits to be saved, else with what is saved; and with the steps of this
 * tab, so that undo works across a reload, unless it was saved elsewhere since.
 */
function remembered(start: Schemas["StructureOut"]): Past {
  const waiting = draftOf(ofStructure(start).at(-1));
  const fresh: Past = {
    back: waiting ? [start.draft] : [],
    now: waiting ?? start.draft,
    ahead: [],
    touched: "",
  };
  try {
    const kept = JSON.parse(sessionStorage.getItem(store(start.id)) ?? "null") as Past | null;
    return kept && text(kept.now) === text(fresh.now) ? { ...kept, touched: "" } : fresh;
  } catch {
    return fresh;
  }
}

function remember(id: number, past: Past): void {
  try {
    sessionStorage.setItem(
      store(id),
      JSON.stringify({ ...past, back: past.back.slice(-KEPT_STEPS), ahead: past.ahead.slice(0, KEPT_STEPS) }),
    );
  } catch {
    sessionStorage.removeItem(store(id));
  }
}

/**
 * The structure in hand: changed, undone, redone, and given to the queue at once, which saves it when the
 * hand rests.
 */
export function useDraft(start: Schemas["StructureOut"]) {
  const { id } = start;
  const about = aboutStructure(id);
  const lane = laneOf(start.garden);
  const [past, setPast] = useState<Past>(() => remembered(start));
  const own = useWrites(lane).filter((write) => write.about === about);
  const stale = own.find((write) => write.state === "stale");
  const refused = own.find((write) => write.state === "refused");
  const conflict = stale && isStructureConflict(stale.saved) ? stale.saved : null;
  // what the server is known to have, and what was given to the queue last; what waits before it sets its
  // revision anew
  const revision = useRef(start.revision);
  const saved = useRef(start.draft);
  const given = useRef(text(past.now));
  const known = useRef(ofStructure(start).map((write) => write.mark));
  useEffect(() => remember(id, past), [id, past]);

  /** Change the draft; changes in one `grip` (one drag of one control) are one step of undo. */
  const change = useCallback<ChangeDraft>((make, grip = "") => {
    setPast((p) => {
      const same = grip !== "" && grip === p.touched;
      return {
        back: same ? p.back : [...p.back.slice(-MOST_STEPS), p.now],
        now: make(p.now),
        ahead: [],
        touched: grip,
      };
    });
  }, []);
  const release = useCallback(() => setPast((p) => ({ ...p, touched: "" })), []);
  const undo = useCallback(() => {
    setPast((p) => {
      const last = p.back.at(-1);
      return last ? { back: p.back.slice(0, -1), now: last, ahead: [p.now, ...p.ahead], touched: "" } : p;
    });
  }, []);
  const redo = useCallback(() => {
    setPast((p) => {
      const [next, ...rest] = p.ahead;
      return next ? { back: [...p.back, p.now], now: next, ahead: rest, touched: "" } : p;
    });
  }, []);

  useEffect(() => {
    const now = text(past.now);
    if (!start.may_edit || stale || now === given.current) return;
    given.current = now;
    const body = { draft: past.now, revision: revision.current };
    const words = say("bench.designChanged", { name: past.now.name });
    const mark = queue.put(
      { lane, about, words, method: "PUT", path: `/api/structures/${id}`, body, knows: known.current },
      (earlier) => (isSaveIn(earlier.body) ? { body: { ...earlier.body, draft: past.now }, words } : null),
      QUIET_MS,
    );
    if (!known.current.includes(mark)) known.current = [...known.current, mark];
  }, [past.now, start, stale, lane, about, id]);
  // the hand has left: there is nothing to wait for
  useEffect(() => () => queue.wake(), []);
  useEffect(
    () =>
      queue.onDone((write, answer) => {
        if (write.about !== about || !isStructureOut(answer)) return;
        revision.current = answer.revision;
        saved.current = answer.draft;
      }),
    [about],
  );

  /**
   * Whether a field was changed here since it was last saved: of a field that only they changed, theirs comes
   * first.
   */
  const mineFirst = useCallback(
    (_kind: string, _key: string, path: string) =>
      JSON.stringify(valueAt(past.now, path)) !== JSON.stringify(valueAt(saved.current, path)),
    [past.now],
  );

  /** After a conflict: mine where it is kept, theirs elsewhere; that is then saved. */
  const settle = useCallback(
    (keep: (path: string) => boolean) => {
      if (!conflict || !stale) return;
      const theirs = conflict.saved;
      revision.current = theirs.revision;
      saved.current = theirs.draft;
      const paths = conflict.differences.map((each) => each.path).filter((path) => !keep(path));
      const sameCrops =
        theirs.draft.plantings.map((planting) => planting.key).join() ===
        past.now.plantings.map((planting) => planting.key).join();
      const settled = paths.reduce(
        (draft, path) =>
          path.startsWith("plantings") && !sameCrops
            ? { ...draft, plantings: theirs.draft.plantings }
            : putAt(draft, path, valueAt(theirs.draft, path)),
        past.now,
      );
      given.current = text(settled);
      queue.settle(stale.mark, { draft: settled, revision: theirs.revision });
      change(() => settled);
    },
    [conflict, stale, change, past.now],
  );
  const problems: Problem[] = refused?.problems ?? [];
  return {
    draft: past.now,
    change,
    release,
    undo,
    redo,
    canUndo: past.back.length > 0,
    canRedo: past.ahead.length > 0,
    problems,
    conflict,
    mineFirst,
    settle,
  } as const;
}
