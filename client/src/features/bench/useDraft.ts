import { useCallback, useEffect, useRef, useState } from "react";

import { api, Refused, taken, type Draft, type Problem, type Schemas } from "../../api/client";
import { putAt } from "./putAt";
import { valueAt } from "./valueAt";

const MOST_STEPS = 200;
const KEPT_STEPS = 60;
const QUIET_MS = 400;
const AGAIN_MS = 3000;

interface Past {
  back: Draft[];
  now: Draft;
  ahead: Draft[];
  touched: string;
}

/** Changes the draft from what it is at that moment, so that two changes that cross lose nothing. */
export type ChangeDraft = (make: (now: Draft) => Draft, grip?: string) => void;

export type Saving = "saved" | "saving" | "refused" | "conflict" | "offline" | "out";

const store = (id: number) => `ascent-steps-${id}`;

interface Kept {
  revision: number;
  past: Past;
  sent: string; // what was on its way to the server, whose answer a reload may not have waited for
}

/**
 * The steps of this structure kept for this tab, so that undo works across a reload and what could not be sent is not
 * lost by one; none when it was saved elsewhere since.
 */
function remembered(start: Schemas["StructureOut"]): Past {
  const fresh: Past = { back: [], now: start.draft, ahead: [], touched: "" };
  try {
    const kept = JSON.parse(sessionStorage.getItem(store(start.id)) ?? "null") as Kept | null;
    const fits = kept && (kept.revision === start.revision || [JSON.stringify(kept.past.now), kept.sent].includes(JSON.stringify(start.draft)));
    return fits ? { ...kept.past, touched: "" } : fresh;
  } catch {
    return fresh;
  }
}

function remember(id: number, past: Past, revision: number, sent: string): void {
  try {
    const short = { ...past, back: past.back.slice(-KEPT_STEPS), ahead: past.ahead.slice(0, KEPT_STEPS) };
    sessionStorage.setItem(store(id), JSON.stringify({ revision, past: short, sent } satisfies Kept));
  } catch {
    sessionStorage.removeItem(store(id));
  }
}

/**
 * The structure in hand: changed, undone, redone, and saved by itself once the hand rests.
 * What cannot be sent is kept and sent again; leaving the bench sends what is left.
 */
export function useDraft(start: Schemas["StructureOut"], onSaved: (saved: Schemas["StructureOut"]) => void) {
  const { id } = start;
  const [past, setPast] = useState<Past>(() => remembered(start));
  const [saving, setSaving] = useState<Saving>("saved");
  const [kept, setKept] = useState(start.draft);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [conflict, setConflict] = useState<Schemas["StructureConflict"] | null>(null);
  const revision = useRef(start.revision);
  const saved = useRef(JSON.stringify(start.draft));
  const refused = useRef("");
  const busy = useRef(false);
  const latest = useRef(start.draft);
  const sent = useRef("");
  useEffect(() => {
    latest.current = past.now;
    remember(id, past, revision.current, sent.current);
  }, [id, past, kept]);

  /** Change the draft; changes in one `grip` (one drag of one control) are one step of undo. */
  const change = useCallback<ChangeDraft>((make, grip = "") => {
    setPast((p) => {
      const same = grip !== "" && grip === p.touched;
      return { back: same ? p.back : [...p.back.slice(-MOST_STEPS), p.now], now: make(p.now), ahead: [], touched: grip };
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

  const save = useCallback(
    async (draft: Draft, leaving = false) => {
      const text = JSON.stringify(draft);
      if (busy.current || text === refused.current || !start.may_edit) return;
      if (text === saved.current) {
        setKept(draft);
        return;
      }
      busy.current = true;
      sent.current = text;
      setSaving("saving");
      try {
        const body = { draft, revision: revision.current };
        const out = await taken(api.PUT("/api/structures/{structure_id}", { params: { path: { structure_id: id } }, body, keepalive: leaving }));
        revision.current = out.revision;
        saved.current = text;
        setKept(draft);
        refused.current = "";
        setProblems([]);
        setSaving("saved");
        onSaved(out);
      } catch (error) {
        if (error instanceof Refused && error.status === 409) {
          setConflict(error.saved as Schemas["StructureConflict"]);
          setSaving("conflict");
        } else if (error instanceof Refused && (error.status === 401 || error.status === 403)) setSaving("out");
        else if (error instanceof Refused && error.status < 500) {
          refused.current = text;
          setProblems(error.problems);
          setSaving("refused");
        } else setSaving("offline");
      } finally {
        busy.current = false;
      }
    },
    [id, onSaved, start.may_edit],
  );
  useEffect(() => {
    if (saving === "conflict" || kept === past.now) return;
    const timer = setTimeout(() => void save(past.now), saving === "offline" || saving === "out" ? AGAIN_MS : QUIET_MS);
    return () => clearTimeout(timer);
  }, [past.now, kept, save, saving]);
  useEffect(() => {
    const flush = () => void save(latest.current, true);
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, [save]);

  /** Whether a field was changed here since it was last saved: of a field that only they changed, theirs comes first. */
  const mineFirst = useCallback(
    (_kind: string, _key: string, path: string) => JSON.stringify(valueAt(past.now, path)) !== JSON.stringify(valueAt(JSON.parse(saved.current) as Draft, path)),
    [past.now],
  );

  /** After a conflict: mine where it is kept, theirs elsewhere; that is then saved. */
  const settle = useCallback(
    (keep: (path: string) => boolean) => {
      if (!conflict) return;
      const theirs = conflict.saved;
      revision.current = theirs.revision;
      saved.current = JSON.stringify(theirs.draft);
      setKept(theirs.draft);
      setConflict(null);
      setSaving("saved");
      const paths = conflict.differences.map((each) => each.path).filter((path) => !keep(path));
      const sameCrops = theirs.draft.plantings.length === past.now.plantings.length;
      change((mine) =>
        paths.reduce((draft, path) => (path.startsWith("plantings") && !sameCrops ? { ...draft, plantings: theirs.draft.plantings } : putAt(draft, path, valueAt(theirs.draft, path))), mine),
      );
    },
    [conflict, change, past.now],
  );
  return { draft: past.now, change, release, undo, redo, canUndo: past.back.length > 0, canRedo: past.ahead.length > 0, saving: saving === "saved" && kept !== past.now ? "saving" : saving, problems, conflict, mineFirst, settle } as const;
}
