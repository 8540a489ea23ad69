import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";

import { api, exactly, Refused, type Edit, type Garden, type Schemas, type ThingEdit } from "../../api/client";

const AGAIN_MS = 3000;
const SIGNED_OUT = new Set([401, 403]);

export type Saving = "saved" | "saving" | "conflict" | "offline" | "out";
type Conflict = Schemas["Conflict"];
type PlotOut = Schemas["PlotOut"];

const store = (id: number) => `ascent-unsent-${id}`;
const unsent = (id: number): Edit[] => {
  try {
    return JSON.parse(sessionStorage.getItem(store(id)) ?? "[]") as Edit[];
  } catch {
    return [];
  }
};
export const keyOf = (edit: Edit) => (edit.kind === "place" ? "place" : edit.key);
const same = (a: Edit, b: Edit) => a.kind === b.kind && keyOf(a) === keyOf(b);

function revisionOf(garden: Garden, edit: Edit): number | undefined {
  if (edit.kind === "place") return garden.place.revision;
  const rows = { bed: garden.beds, feature: garden.features, structure: garden.structures }[edit.kind] as { key: string; revision: number }[];
  return rows.find((row) => row.key === edit.key)?.revision;
}

/** Two edits of one thing as one, when the later only changes what the earlier changes or adds. */
function joined(earlier: Edit, later: Edit): Edit | null {
  if (!same(earlier, later) || (later.kind !== "place" && later.act !== "change") || (earlier.kind !== "place" && earlier.act === "remove")) return null;
  return { ...earlier, change: { ...earlier.change, ...later.change } } as Edit;
}

/**
 * The plan in hand: edits are drawn at once, saved by themselves one after another, kept and sent again when the server
 * is away, and shown in both versions when someone else was first.
 */
export function usePlan(garden: Garden) {
  const queries = useQueryClient();
  const [pending, setPending] = useState<Edit[]>(() => unsent(garden.id));
  const [hand, setHand] = useState<ThingEdit | null>(null);
  const [saving, setSaving] = useState<Saving>("saved");
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [refusal, setRefusal] = useState("");
  const [made, setMade] = useState<string[]>([]);
  const [view, setView] = useState<PlotOut | null>(null);
  const busy = useRef(false);
  const sending = useRef(0);
  // the garden as last heard of, which may be ahead of what is drawn: an edit's revision is taken from it
  const heard = useRef(garden);
  useEffect(() => {
    if (garden.number >= heard.current.number) heard.current = garden;
  }, [garden]);

  const take = useCallback(
    (fresh: Garden) => {
      heard.current = fresh;
      queries.setQueryData(["garden", fresh.id], fresh);
      void queries.invalidateQueries({ queryKey: ["structure"] });
      void queries.invalidateQueries({ queryKey: ["shade", fresh.id] });
    },
    [queries],
  );

  const put = useCallback(
    (edit: Edit) => {
      setRefusal("");
      const out = sending.current;
      setPending((now) => {
        const free = now.length > out ? now.at(-1) : undefined;
        const one = free && joined(free, edit);
        if (one) return [...now.slice(0, -1), one];
        const first = !now.some((each) => same(each, edit)) && !(edit.kind !== "place" && edit.act === "add");
        return [...now, first ? { ...edit, revision: revisionOf(heard.current, edit) ?? null } : edit];
      });
    },
    [],
  );

  useEffect(() => {
    if (pending.length) sessionStorage.setItem(store(garden.id), JSON.stringify(pending));
    else sessionStorage.removeItem(store(garden.id));
  }, [pending, garden.id]);

  const send = useCallback(async () => {
    if (busy.current || !pending.length) return;
    busy.current = true;
    const count = pending.length;
    sending.current = count;
    setSaving((now) => (now === "offline" || now === "out" ? now : "saving"));
    const edits = pending.map((edit, i) => (edit.revision == null && !pending.slice(0, i).some((each) => same(each, edit)) && (edit.kind === "place" || edit.act !== "add") ? { ...edit, revision: revisionOf(heard.current, edit) ?? null } : edit));
    const drop = () => setPending((now) => now.slice(count));
    try {
      const out = await exactly<Schemas["EditsOut"]>(api.POST("/api/gardens/{garden_id}/edits", { params: { path: { garden_id: garden.id } }, body: { edits } }));
      take(out.garden);
      drop();
      if (out.made.length) setMade(out.made);
      setSaving("saved");
    } catch (error) {
      if (error instanceof Refused && error.status === 409) {
        setConflict(error.saved as Conflict);
        setSaving("conflict");
      } else if (error instanceof Refused && SIGNED_OUT.has(error.status)) setSaving("out");
      else if (error instanceof Refused && error.status < 500) {
        // what is wrong is let go and said; what was sent together with it goes out again
        const wrong = new Set(error.problems.map((p) => Number(/^edits\[(\d+)\]/.exec(p.path)?.[1] ?? -1)));
        if (!wrong.size) wrong.add(-1);
        setPending((now) => now.filter((_, i) => i >= count || (!wrong.has(-1) && !wrong.has(i))));
        setRefusal(error.problems.map((p) => `${p.path.split(".").at(-1) ?? ""} ${p.given}: ${p.allowed}`).join("; "));
        setSaving("saved");
      } else setSaving("offline");
    } finally {
      busy.current = false;
      sending.current = 0;
    }
  }, [pending, garden.id, take]);

  useEffect(() => {
    if (!pending.length || saving === "conflict") return;
    const timer = setTimeout(() => void send(), saving === "offline" || saving === "out" ? AGAIN_MS : 0);
    return () => clearTimeout(timer);
  }, [pending, saving, send]);

  // while something is in hand: its plan, warnings and distances, one question in flight, the latest wins
  const asking = useRef(false);
  const waiting = useRef<{ edits: Edit[]; about: string } | null>(null);
  useEffect(() => {
    const edits = [...pending, ...(hand ? [hand] : [])].map((edit) => ({ ...edit, revision: null }));
    waiting.current = { edits, about: hand ? keyOf(hand) : "" };
    const ask = async () => {
      if (asking.current) return;
      asking.current = true;
      for (let next = waiting.current; next; next = waiting.current) {
        waiting.current = null;
        if (!next.edits.length) {
          setView(null);
          continue;
        }
        try {
          setView(await exactly<PlotOut>(api.POST("/api/gardens/{garden_id}/draft", { params: { path: { garden_id: garden.id } }, body: next })));
        } catch {
          // what is in hand is drawn where the hand put it; the saving says what is wrong
        }
      }
      asking.current = false;
    };
    void ask();
  }, [pending, hand, garden.id]);

  /** What the hand and the unsent edits want of each thing, by key. */
  const wanted = useMemo(() => {
    const found = new Map<string, Record<string, unknown>>();
    for (const edit of [...pending, ...(hand ? [hand] : [])]) found.set(keyOf(edit), { ...found.get(keyOf(edit)), ...edit.change });
    return found;
  }, [pending, hand]);

  /** After a conflict: what is kept of mine goes out again over what is there now; the rest is let go. */
  const settle = useCallback(
    (keep: (kind: string, key: string, path: string) => boolean) => {
      if (!conflict) return;
      take(conflict.garden);
      const theirs = new Map(conflict.things.map((thing) => [`${thing.kind}/${thing.key}`, thing]));
      setPending((now) =>
        now.flatMap((edit) => {
          const thing = theirs.get(`${edit.kind}/${keyOf(edit)}`);
          if (!thing) return [edit];
          if (thing.revision === null) return [];
          const all = edit.kind !== "place" && edit.act === "remove";
          const change = Object.fromEntries(Object.entries(edit.change ?? {}).filter(([path]) => keep(thing.kind, thing.key, path)));
          if (all ? !keep(thing.kind, thing.key, "") : !Object.keys(change).length) return [];
          return [{ ...edit, change, revision: thing.revision }];
        }),
      );
      setConflict(null);
      setSaving("saved");
    },
    [conflict, take],
  );

  const step = useCallback(
    async (way: "undo" | "redo") => {
      try {
        take(await exactly<Garden>(api.POST(way === "undo" ? "/api/gardens/{garden_id}/undo" : "/api/gardens/{garden_id}/redo", { params: { path: { garden_id: garden.id } } })));
        setRefusal("");
      } catch (error) {
        setRefusal(error instanceof Refused ? (error.problems[0]?.allowed ?? "refused") : "The server did not answer.");
      }
    },
    [garden.id, take],
  );
  const undo = useCallback(() => void step("undo"), [step]);
  const redo = useCallback(() => void step("redo"), [step]);
  return {
    hand, setHand, put, undo, redo, saving: saving === "saved" && pending.length ? "saving" : saving, refusal, conflict, settle, made, wanted,
    plot: view?.plot ?? garden.plot, warnings: view?.warnings ?? garden.warnings, gaps: hand ? (view?.gaps ?? []) : [], written: hand && view && Object.keys(view.written).length ? view.written : null, idle: !pending.length && !hand,
  } as const;
}

export type PlanHand = ReturnType<typeof usePlan>;
