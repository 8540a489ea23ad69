import type { Schemas } from "../api/client";
import type { Flat } from "./scale";

type Sketch = Schemas["Sketch"];
const WIDTH = 560;
const HEIGHT = 300;
const EDGE = 12;

const middleOf = (points: readonly Flat[]): Flat => {
  const sum = points.reduce<Flat>((all, [u, v]) => [all[0] + u, all[1] + v], [0, 0]);
  return [sum[0] / Math.max(points.length, 1), sum[1] / Math.max(points.length, 1)];
};

/** Two structures on the same bed, drawn over one another to one scale, each in an ink of its own. */
export function Overlay({ sketches, label }: { sketches: readonly [Sketch, Sketch]; label: string }) {
  const [one, other] = sketches;
  const [a, b] = [middleOf(one.ground), middleOf(other.ground)];
  const shift: Flat = [a[0] - b[0], a[1] - b[1]];
  const moved = (point: Flat): Flat => [point[0] + shift[0], point[1] + shift[1]];
  const [low, high] = [
    [one.low, moved(other.low)].reduce(([u, v], [x, y]): Flat => [Math.min(u, x), Math.min(v, y)]),
    [one.high, moved(other.high)].reduce(([u, v], [x, y]): Flat => [Math.max(u, x), Math.max(v, y)]),
  ];
  const perMetre = Math.min(
    (WIDTH - 2 * EDGE) / Math.max(high[0] - low[0], 0.5),
    (HEIGHT - 2 * EDGE) / Math.max(high[1] - low[1], 0.5),
  );
  const left = (WIDTH - (high[0] - low[0]) * perMetre) / 2;
  const path = (points: readonly Flat[]) =>
    points
      .map(([u, v], i) => {
        const x = left + (u - low[0]) * perMetre;
        const y = HEIGHT - EDGE - (v - low[1]) * perMetre;
        return `${i ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join("");
  return (
    <svg className="over" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
      <path d={`${path(one.ground)}Z`} fill="var(--soil)" opacity={0.55} />
      <path className="first" d={one.strokes.map((stroke) => path(stroke.points)).join("")} />
      <path className="second" d={other.strokes.map((stroke) => path(stroke.points.map(moved))).join("")} />
    </svg>
  );
}
