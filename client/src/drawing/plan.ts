import type { Flat } from "./scale";

/** Degrees from north, clockwise, to a unit vector east and north. */
export const heading = (bearing: number): Flat => [
  Math.sin((bearing * Math.PI) / 180),
  Math.cos((bearing * Math.PI) / 180),
];

/** The unit vector to the left of a heading. */
export const leftOf = ([east, north]: Flat): Flat => [-north, east];

/** A point moved along a heading and to its left. */
export function beside([x, y]: Flat, bearing: number, along: number, left: number): Flat {
  const ahead = heading(bearing);
  const across = leftOf(ahead);
  return [x + along * ahead[0] + left * across[0], y + along * ahead[1] + left * across[1]];
}

/** How far a point lies ahead of another along a heading, and to its left. */
export function inFrame([x, y]: Flat, [ox, oy]: Flat, bearing: number): Flat {
  const ahead = heading(bearing);
  const across = leftOf(ahead);
  const [dx, dy] = [x - ox, y - oy];
  return [dx * ahead[0] + dy * ahead[1], dx * across[0] + dy * across[1]];
}

/** A bearing between 0 and 360, to a tenth. */
export const turned = (bearing: number) => (Math.round((((bearing % 360) + 360) % 360) * 10) / 10) % 360;

/** Metres to the millimetre, as they are kept. */
export const kept = (metres: number) => Math.round(metres * 1000) / 1000;

/** The four corners of an oblong round its middle. */
export const oblong = (middle: Flat, bearing: number, length: number, width: number): Flat[] =>
  [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([a = 0, b = 0]) => beside(middle, bearing, (a * length) / 2, (b * width) / 2));

/** The least upright box round some points: west, south, east, north. */
export function around(points: readonly Flat[]): [number, number, number, number] {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
