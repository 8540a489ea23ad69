import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { type Edit, type Garden, Refused, type ThingEdit } from "../../api/client";
import { merged } from "../../api/merged";
import { useFresh } from "../../api/useFresh";
import { isConflict, isEditsOut } from "../../queue/answers";
import { askGarden, editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { useWrites } from "../../queue/useQueue";
import { EDITS, editsOf, keyOf, laneOf, sameThing } from "../../queue/writes";
import { joined, revisionOf, wordsOf } from "./edits";
import { type Given, given, type Wanted } from "./placing";
import { usePlanDraft } from "./usePlanDraft";
import { say } from "../../texts/say";

const MOST_EDITS = 100; // in one write, so that one that is long away stays small

function add<C extends object>(found: Map<string, Given<C>>, key: string, change: C | undefined): void {
  found.set(key, { ...found.get(key), ...given(change) });
}

const takesAway = (edit: Edit) => edit.kind !== "place" && edit.act === "remove";
const things = (garden: Garden) => garden.beds.length + garden.structures.length + garden.features.length;

/**
 * The plan in hand: edits are drawn at once and given to the queue, which saves them one after another; when
 * someone else was first both versions are shown.
 */
export function usePlan(garden: Garden) {
  const fresh = useFresh();
  const writes = useWrites(laneOf(garden.id));
  const [hand, setHand] = useState<ThingEdit | null>(null);
  const [refusal, setRefusal] = useState("");
  const [made, setMade] = useState<string[]>([]);
  const [taken, setTaken] = useState<string | null>(null); // in words, what was removed from here last
  const open = useMemo(() => writes.filter((write) => write.state !== "refused"), [writes]);
  const pending = useMemo(() => open.flatMap(editsOf), [open]);
  const stale = writes.find((write) => write.state === "stale" && write.about === EDITS);
  const conflict = stale && isConflict(stale.saved) ? stale.saved : null;
  const { plot, view } = usePlanDraft(garden, pending, hand);
  // the garden as last heard of, which may be ahead of what is drawn: an edit's revision is taken from it
  const heard = useRef(garden);
  useEffect(() => {
    if (garden.number >= heard.current.number) heard.current = garden;
  }, [garden]);

  useEffect(
    () =>
      queue.onDone((write, answer, asked) => {
        if (write.lane !== laneOf(garden.id) || !isEditsOut(answer)) return;
        heard.current = merged(heard.current, answer.changed);
        if (answer.made.length && !asked) setMade(answer.made);
        setTaken(editsOf(write).some(takesAway) ? answer.changed.undo : null);
      }),
    [garden.id],
  );

  const put = useCallback(
    (edit: Edit) => {
      setRefusal("");
      // what waits before it sets the revision anew when it has got there
      const own =
        edit.kind === "place" || edit.act !== "add"
          ? { ...edit, revision: revisionOf(heard.current, edit) ?? null }
          : edit;
      const words = wordsOf(heard.current, edit);
      const knows = queue
        .mine()
        .filter((write) => write.lane === laneOf(garden.id) && write.about === EDITS)
        .map((write) => write.mark);
      queue.put({ ...editsWrite(garden.id, [own], words), knows }, (earlier) => {
        const edits = editsOf(earlier);
        const last = edits.at(-1);
        const one = last && joined(last, edit);
        if (!one && edits.length >= MOST_EDITS) return null;
        const next = edits.some((each) => sameThing(each, edit)) ? { ...edit, revision: null } : own;
        return {
          body: { edits: one ? [...edits.slice(0, -1), one] : [...edits, next] },
          words: earlier.words.includes(words) ? earlier.words : `${earlier.words}; ${words}`,
        };
      });
    },
    [garden.id],
  );

  /** What the hand and the unsent edits want of each thing, by key. */
  const wanted = useMemo(() => {
    const found: Wanted = { bed: new Map(), feature: new Map(), structure: new Map() };
    for (const edit of [...pending, ...(hand ? [hand] : [])]) {
      if (edit.kind === "bed") add(found.bed, edit.key, edit.change);
      else if (edit.kind === "feature") add(found.feature, edit.key, edit.change);
      else if (edit.kind === "structure") add(found.structure, edit.key, edit.change);
    }
    return found;
  }, [pending, hand]);

  /** After a conflict: what is kept of mine goes out again over what is there now; the rest is let go. */
  const settle = useCallback(
    (keep: (kind: string, key: string, path: string) => boolean) => {
      if (!stale || !conflict) return;
      heard.current = conflict.garden;
      fresh.looksLike(conflict.garden);
      const theirs = new Map(conflict.things.map((thing) => [`${thing.kind}/${thing.key}`, thing]));
      const left = editsOf(stale).flatMap((edit) => {
        const thing = theirs.get(`${edit.kind}/${keyOf(edit)}`);
        if (!thing) return [edit];
        if (thing.revision === null) return [];
        const all = edit.kind !== "place" && edit.act === "remove";
        const change = Object.fromEntries(
          Object.entries(edit.change ?? {}).filter(([path]) => keep(thing.kind, thing.key, path)),
        );
        if (all ? !keep(thing.kind, thing.key, "") : !Object.keys(change).length) return [];
        return [{ ...edit, change, revision: thing.revision }];
      });
      queue.settle(stale.mark, left.length ? { edits: left } : null);
    },
    [stale, conflict, fresh],
  );

  const step = useCallback(
    async (way: "undo" | "redo") => {
      try {
        const before = things(heard.current);
        const after = await askGarden<Garden>(garden.id, `/${way}`, {}, way);
        // what an undo takes away is not said: it was asked for, and the redo stands ready
        setTaken(way === "redo" && things(after) < before ? after.undo : null);
        setRefusal("");
      } catch (error) {
        setRefusal(
          error instanceof Refused
            ? (error.problems[0]?.allowed ?? "refused")
            : say("common.theServerDidNotAnswer"),
        );
      }
    },
    [garden.id],
  );
  const undo = useCallback(() => void step("undo"), [step]);
  const redo = useCallback(() => void step("redo"), [step]);
  const forget = useCallback(() => setTaken(null), []);
  return {
    hand,
    setHand,
    taken,
    forget,
    put,
    undo,
    redo,
    refusal,
    conflict,
    settle,
    made,
    wanted,
    plot,
    warnings: view?.warnings ?? garden.warnings,
    gaps: hand ? (view?.gaps ?? []) : [],
    writtenOf: (key: string) =>
      view?.about === key && Object.keys(view.written).length ? view.written : null,
    idle: !open.length && !hand,
  } as const;
}

export type PlanHand = ReturnType<typeof usePlan>;
