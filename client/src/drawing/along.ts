import type { Flat } from "./scale";

/** Where something stands so far along a way; straight up from the foot where there is no way. */
export function along(foot: Flat, way: readonly Flat[], distance: number): Flat {
  if (way.length < 2) return [foot[0], foot[1] + distance];
  let left = distance;
  for (let i = 1; i < way.length; i += 1) {
    const [a, b] = [way[i - 1] ?? foot, way[i] ?? foot];
    const step = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (left <= step)
      return [
        a[0] + ((b[0] - a[0]) * left) / Math.max(step, 1e-9),
        a[1] + ((b[1] - a[1]) * left) / Math.max(step, 1e-9),
      ];
    left -= step;
  }
  return way.at(-1) ?? foot;
}
