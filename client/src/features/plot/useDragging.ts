import { useRef, useState, type PointerEvent } from "react";

import type { Garden, ThingEdit } from "../../api/client";
import { beside, heading, inFrame, kept, leftOf, oblong, turned } from "../../drawing/plan";
import type { Flat } from "../../drawing/scale";
import { snap, type Guide } from "../../drawing/snap";
import { changeOf, type Kind, type Placing } from "./placing";
import type { PlanHand } from "./usePlan";

const SNAP_PX = 7;
const START_PX = 4;
const STEP = 0.05;
const TURN = 5;
const SHORTEST = 0.3;

/** What of a thing is in the hand: the whole, one end of it, its turning handle, or one corner of a line. */
export type Grip =
  | { part: "whole" }
  | { part: "turn" }
  | { part: "side"; along: -1 | 0 | 1; left: -1 | 0 | 1 }
  | { part: "end"; last: boolean }
  | { part: "corner"; index: number };

interface Held {
  kind: Kind;
  key: string;
  grip: Grip;
  start: Flat;
  from: [number, number];
  moved: boolean;
  outline: readonly Flat[];
}

const stepped = (metres: number, free: boolean) => (free ? kept(metres) : Math.round(metres / STEP) * STEP);

/**
 * Moving, turning and stretching things with a pointer: from the pointer's way to an edit in hand, put down
 * on release.
 */
export function useDragging(
  garden: Garden,
  plot: Garden["plot"],
  placing: Placing,
  plan: PlanHand,
  toPlan: (x: number, y: number) => Flat,
  perMetre: number,
) {
  const held = useRef<Held | null>(null);
  const [guides, setGuides] = useState<Guide[]>([]);

  const outlines = (but: string) =>
    plot.beds.filter((bed) => bed.key !== but).map((bed) => bed.outline as readonly Flat[]);

  const editFor = (hand: Held, to: Flat, free: boolean): ThingEdit | null => {
    const by: Flat = [to[0] - hand.start[0], to[1] - hand.start[1]];
    if (hand.kind === "bed") return bedEdit(hand, to, by, free);
    if (hand.kind === "structure") return structureEdit(hand, to, by, free);
    return featureEdit(hand, by, free);
  };

  const bedEdit = (hand: Held, to: Flat, by: Flat, free: boolean): ThingEdit | null => {
    const bed = garden.beds.find((each) => each.key === hand.key)?.fields;
    if (!bed) return null;
    const middle: Flat = [bed.x, bed.y];
    if (hand.grip.part === "turn") return changeOf("bed", hand.key, { bearing: turnTo(to, middle, free) });
    if (hand.grip.part === "side") {
      const { along, left } = hand.grip;
      const ahead = heading(bed.bearing);
      const across = leftOf(ahead);
      const grow = along
        ? along * (by[0] * ahead[0] + by[1] * ahead[1])
        : left * (by[0] * across[0] + by[1] * across[1]);
      const was = along ? bed.length : bed.width;
      const size = Math.max(stepped(was + grow, free), SHORTEST);
      const [x, y] = beside(middle, bed.bearing, (along * (size - was)) / 2, (left * (size - was)) / 2);
      return changeOf("bed", hand.key, { [along ? "length" : "width"]: kept(size), x: kept(x), y: kept(y) });
    }
    const moved = hand.outline.map(([x, y]): Flat => [x + by[0], y + by[1]]);
    const { shift, guides: found } = free
      ? { shift: [0, 0] as Flat, guides: [] }
      : snap(moved, outlines(hand.key), garden.place.fields.path_width, SNAP_PX / perMetre);
    setGuides(found);
    return changeOf("bed", hand.key, {
      x: kept(bed.x + by[0] + shift[0]),
      y: kept(bed.y + by[1] + shift[1]),
    });
  };

  const structureEdit = (hand: Held, to: Flat, by: Flat, free: boolean): ThingEdit | null => {
    const row = garden.structures.find((each) => each.key === hand.key);
    const bed = row && placing.fields(row.bed);
    if (!row || !bed) return null;
    const bearing = bed.bearing + row.turn;
    const middle = beside([bed.x, bed.y], bed.bearing, row.along, row.across);
    if (hand.grip.part === "turn")
      return changeOf("structure", hand.key, { turn: turned(turnTo(to, middle, free) - bed.bearing) });
    if (hand.grip.part === "end") {
      const sign = hand.grip.last ? 1 : -1;
      const ahead = heading(bearing);
      const size = Math.max(
        stepped(row.length + sign * (by[0] * ahead[0] + by[1] * ahead[1]), free),
        SHORTEST * 2,
      );
      const [along, across] = inFrame(
        beside(middle, bearing, (sign * (size - row.length)) / 2, 0),
        [bed.x, bed.y],
        bed.bearing,
      );
      return changeOf("structure", hand.key, {
        along: kept(along),
        across: kept(across),
        options: { [row.stretch]: kept(size) },
      });
    }
    const to2: Flat = [middle[0] + by[0], middle[1] + by[1]];
    const other = plot.beds.find((each) => each.key !== row.bed && within(to2, each));
    const home =
      other &&
      !within(to2, { middle: [bed.x, bed.y], bearing: bed.bearing, length: bed.length, width: bed.width })
        ? other
        : null;
    const [along, across] = home
      ? inFrame(to2, home.middle, home.bearing)
      : inFrame(to2, [bed.x, bed.y], bed.bearing);
    const near = (value: number) =>
      !free && Math.abs(value) * perMetre < SNAP_PX ? 0 : kept(stepped(value, free));
    return changeOf("structure", hand.key, {
      along: near(along),
      across: near(across),
      ...(home ? { bed: home.key } : {}),
    });
  };

  const featureEdit = (hand: Held, by: Flat, free: boolean): ThingEdit | null => {
    const feature = garden.features.find((each) => each.key === hand.key)?.fields;
    if (!feature) return null;
    const { grip } = hand;
    const points = feature.points.map(([x, y], i): Flat =>
      grip.part === "whole" || (grip.part === "corner" && grip.index === i)
        ? [kept(stepped(x + by[0], free)), kept(stepped(y + by[1], free))]
        : [x, y],
    );
    return changeOf("feature", hand.key, { points });
  };

  const begin = (event: PointerEvent, kind: Kind, key: string, grip: Grip) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const mark = plot.beds.find((bed) => bed.key === key);
    const outline = mark
      ? oblong(mark.middle, mark.bearing, mark.length + 2 * mark.board, mark.width + 2 * mark.board)
      : [];
    held.current = {
      kind,
      key,
      grip,
      start: toPlan(event.clientX, event.clientY),
      from: [event.clientX, event.clientY],
      moved: false,
      outline,
    };
  };
  const move = (event: PointerEvent) => {
    const hand = held.current;
    if (!hand) return;
    if (!hand.moved && Math.hypot(event.clientX - hand.from[0], event.clientY - hand.from[1]) < START_PX)
      return;
    hand.moved = true;
    const edit = editFor(hand, toPlan(event.clientX, event.clientY), event.altKey);
    if (edit) plan.setHand(edit);
  };
  const end = () => {
    const hand = held.current;
    held.current = null;
    setGuides([]);
    if (hand?.moved && plan.hand) plan.put(plan.hand);
    plan.setHand(null);
  };
  const cancel = () => {
    held.current = null;
    setGuides([]);
    plan.setHand(null);
  };
  return { begin, move, end, cancel, guides } as const;
}

function turnTo(to: Flat, middle: Flat, free: boolean): number {
  const bearing = (Math.atan2(to[0] - middle[0], to[1] - middle[1]) * 180) / Math.PI;
  return turned(free ? bearing : Math.round(bearing / TURN) * TURN);
}

function within(point: Flat, bed: { middle: Flat; bearing: number; length: number; width: number }): boolean {
  const [along, left] = inFrame(point, bed.middle, bed.bearing);
  return Math.abs(along) <= bed.length / 2 && Math.abs(left) <= bed.width / 2;
}
