import { useCallback, useEffect, useRef, useState } from "react";

import { api, Refused, taken, type Draft, type Problem, type Schemas } from "../../api/client";

const MOST_STEPS = 200;
const QUIET_MS = 400;
const AGAIN_MS = 3000;

interface Past {
  back: Draft[];
  now: Draft;
  ahead: Draft[];
  touched: string;
}

export type Saving = "saved" | "saving" | "refused" | "conflict" | "offline";

/**
 * The structure in hand: changed, undone, redone, and saved by itself once the hand rests.
 * What cannot be sent is kept and sent again; leaving the bench sends what is left.
 */
export function useDraft(id: number, start: Schemas["StructureOut"], onSaved: (saved: Schemas["StructureOut"]) => void) {
  const [past, setPast] = useState<Past>({ back: [], now: start.draft, ahead: [], touched: "" });
  const [saving, setSaving] = useState<Saving>("saved");
  const [kept, setKept] = useState(start.draft);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [theirs, setTheirs] = useState<Schemas["StructureOut"] | null>(null);
  const revision = useRef(start.revision);
  const saved = useRef(JSON.stringify(start.draft));
  const refused = useRef("");
  const busy = useRef(false);
  const latest = useRef(start.draft);
  useEffect(() => {
    latest.current = past.now;
  }, [past.now]);

  /** Change the draft; changes in one `grip` (one drag of one control) are one step of undo. */
  const change = useCallback((next: Draft, grip = "") => {
    setPast((p) => {
      const same = grip !== "" && grip === p.touched;
      return { back: same ? p.back : [...p.back.slice(-MOST_STEPS), p.now], now: next, ahead: [], touched: grip };
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
      if (busy.current || text === refused.current) return;
      if (text === saved.current) {
        setKept(draft);
        return;
      }
      busy.current = true;
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
          setTheirs(error.saved as Schemas["StructureOut"]);
          setSaving("conflict");
        } else if (error instanceof Refused && error.status < 500) {
          refused.current = text;
          setProblems(error.problems);
          setSaving("refused");
        } else setSaving("offline");
      } finally {
        busy.current = false;
      }
    },
    [id, onSaved],
  );
  useEffect(() => {
    if (saving === "conflict" || kept === past.now) return;
    const timer = setTimeout(() => void save(past.now), saving === "offline" ? AGAIN_MS : QUIET_MS);
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

  /** After a conflict: keep mine over theirs, or take theirs. */
  const settle = useCallback(
    (mine: boolean) => {
      if (!theirs) return;
      revision.current = theirs.revision;
      saved.current = JSON.stringify(theirs.draft);
      setKept(theirs.draft);
      setTheirs(null);
      setSaving("saved");
      if (!mine) change(theirs.draft);
    },
    [theirs, change],
  );
  return { draft: past.now, change, release, undo, redo, canUndo: past.back.length > 0, canRedo: past.ahead.length > 0, saving: saving === "saved" && kept !== past.now ? "saving" : saving, problems, settle } as const;
}
