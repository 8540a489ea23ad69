import type { View } from "../api/client";
import type { Scale } from "./scale";

type Measure = View["measures"][number];

const AWAY = 46;

/** Where a measure's line runs: square to what it measures, to the right of it and above. */
function ends(measure: Measure, at: Scale["at"]): [number, number, number, number] {
  const [a, b] = [at(measure.start), at(measure.end)];
  const [dx, dy] = [Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])];
  const away = (measure.offset * AWAY) / Math.max(Math.hypot(dx, dy), 1e-9);
  return [a[0] + dy * away, a[1] - dx * away, b[0] + dy * away, b[1] - dx * away];
}

/** The middle of a measure's line, where its value stands. */
export function measureSpot(measure: Measure, at: Scale["at"]): [number, number] {
  const [x0, y0, x1, y1] = ends(measure, at);
  return [(x0 + x1) / 2, (y0 + y1) / 2];
}

/** A measure's two legs, its line and its ticks, as one path. */
export function measurePath(measure: Measure, at: Scale["at"]): string {
  const [x0, y0, x1, y1] = ends(measure, at);
  const [a, b] = [at(measure.start), at(measure.end)];
  const tick = (x: number, y: number) => `M${x - 4} ${y + 4}l8 -8`;
  return `M${a[0]} ${a[1]}L${x0} ${y0}L${x1} ${y1}L${b[0]} ${b[1]}${tick(x0, y0)}${tick(x1, y1)}`;
}
