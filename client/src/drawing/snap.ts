import { around } from "./plan";
import type { Flat } from "./scale";

/** A line to which something was aligned: level with y, or upright at x. */
export interface Guide {
  upright: boolean;
  at: number;
  from: number;
  to: number;
}

export interface Snapped {
  shift: Flat;
  guides: Guide[];
}

const ROUND = 0.05; // metres

/**
 * Shift that brings an outline into line with its neighbours: edges, middles, and a path's width apart; else
 * to the nearest 5 cm of its middle. `reach` is how far it may be pulled, in metres.
 */
export function snap(
  outline: readonly Flat[],
  others: readonly (readonly Flat[])[],
  path: number,
  reach: number,
): Snapped {
  const [west, south, east, north] = around(outline);
  const across = candidates(
    [west, (west + east) / 2, east],
    others.map((other) => pick(around(other), 0)),
    path,
  );
  const up = candidates(
    [south, (south + north) / 2, north],
    others.map((other) => pick(around(other), 1)),
    path,
  );
  const x = nearest(across, reach);
  const y = nearest(up, reach);
  const rounded = (value: number) => Math.round(value / ROUND) * ROUND - value;
  const shift: Flat = [x?.by ?? rounded((west + east) / 2), y?.by ?? rounded((south + north) / 2)];
  const guides: Guide[] = [];
  const box = (index: number) => around(others[index] ?? outline);
  if (x)
    guides.push({
      upright: true,
      at: x.at,
      from: Math.min(south, box(x.of)[1]),
      to: Math.max(north, box(x.of)[3]),
    });
  if (y)
    guides.push({
      upright: false,
      at: y.at,
      from: Math.min(west, box(y.of)[0]),
      to: Math.max(east, box(y.of)[2]),
    });
  return { shift, guides };
}

interface Candidate {
  by: number;
  at: number;
  of: number;
}

const pick = (box: readonly [number, number, number, number], axis: 0 | 1): [number, number] => [
  box[axis],
  box[axis + 2] ?? 0,
];

function candidates(
  [low = 0, middle = 0, high = 0]: readonly number[],
  others: readonly [number, number][],
  path: number,
): Candidate[] {
  return others.flatMap(([from, to], of) => [
    { by: from - low, at: from, of },
    { by: to - high, at: to, of },
    { by: (from + to) / 2 - middle, at: (from + to) / 2, of },
    { by: to - low, at: to, of },
    { by: from - high, at: from, of },
    { by: to + path - low, at: to + path, of },
    { by: from - path - high, at: from - path, of },
  ]);
}

function nearest(found: readonly Candidate[], reach: number): Candidate | undefined {
  return found
    .filter((each) => Math.abs(each.by) <= reach)
    .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
}
