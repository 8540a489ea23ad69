import { useEffect, useRef, type KeyboardEvent } from "react";

import type { Garden, ThingEdit } from "../../api/client";
import { heading, kept, leftOf, turned } from "../../drawing/plan";
import type { Flat } from "../../drawing/scale";
import { changeOf, type Kind, type Placing } from "./placing";
import type { PlanHand } from "./usePlan";

const REST_MS = 500;
const WAYS: Record<string, Flat> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/**
 * Moving and turning by keys: 10 cm a press, 1 m with Shift, 1 cm with Alt; [ and ] turn by 5°. Kept once the
 * keys rest.
 */
export function useNudging(garden: Garden, placing: Placing, plan: PlanHand) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const waiting = useRef<ThingEdit | null>(null);
  const put = useRef(plan.put);
  useEffect(() => {
    put.current = plan.put;
  }, [plan.put]);
  const flush = () => {
    clearTimeout(timer.current);
    if (waiting.current) put.current(waiting.current);
    waiting.current = null;
    plan.setHand(null);
  };
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      if (waiting.current) put.current(waiting.current);
    },
    [],
  );

  const moved = (kind: Kind, key: string, [east, north]: Flat): ThingEdit | null => {
    if (kind === "bed") {
      const bed = placing.fields(key);
      return bed ? changeOf(kind, key, { x: kept(bed.x + east), y: kept(bed.y + north) }) : null;
    }
    if (kind === "structure") {
      const row = placing.row(key);
      const bed = row && placing.fields(row.bed);
      if (!bed) return null;
      const ahead = heading(bed.bearing);
      const across = leftOf(ahead);
      return changeOf(kind, key, {
        along: kept(row.along + east * ahead[0] + north * ahead[1]),
        across: kept(row.across + east * across[0] + north * across[1]),
      });
    }
    const base = garden.features.find((each) => each.key === key)?.fields;
    const points = plan.wanted.feature.get(key)?.points ?? base?.points;
    return points
      ? changeOf(kind, key, { points: points.map(([x, y]) => [kept(x + east), kept(y + north)]) })
      : null;
  };
  const turnedBy = (kind: Kind, key: string, by: number): ThingEdit | null => {
    if (kind === "bed") {
      const bed = placing.fields(key);
      return bed ? changeOf(kind, key, { bearing: turned(bed.bearing + by) }) : null;
    }
    const row = kind === "structure" ? placing.row(key) : undefined;
    return row ? changeOf(kind, key, { turn: turned(row.turn + by) }) : null;
  };

  /** Take a key that moves, turns, copies or removes; false when it is none of them. */
  const onKey = (event: KeyboardEvent, kind: Kind, key: string): boolean => {
    const way = WAYS[event.key];
    const step = event.shiftKey ? 1 : event.altKey ? 0.01 : 0.1;
    const turn = { "[": -5, "]": 5, "{": -45, "}": 45 }[event.key];
    if (event.key === "Delete" || event.key === "Backspace") {
      flush();
      plan.put({ ...changeOf(kind, key, {}), act: "remove" });
      return true;
    }
    const edit = way
      ? moved(kind, key, [way[0] * step, way[1] * step])
      : turn
        ? turnedBy(kind, key, turn)
        : null;
    if (!edit) return false;
    const before = waiting.current?.key === key ? waiting.current.change : {};
    waiting.current = { ...edit, change: { ...before, ...edit.change } } as ThingEdit;
    plan.setHand(waiting.current);
    clearTimeout(timer.current);
    timer.current = setTimeout(flush, REST_MS);
    return true;
  };
  return { onKey } as const;
}
