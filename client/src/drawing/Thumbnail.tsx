import type { Schemas } from "../api/client";
import { INK } from "./inks";
import type { Flat } from "./scale";

const WIDTH = 176;
const HEIGHT = 116;
const EDGE = 6;

type Sketch = Schemas["Sketch"];

/** How wide and high the largest of some sketches is, so that all can be drawn to one scale. [m] */
export function spanOf(sketches: readonly Sketch[]): Flat {
  const largest = (axis: 0 | 1) => Math.max(0.5, ...sketches.map((each) => each.high[axis] - each.low[axis]));
  return [largest(0), largest(1)];
}

/** A structure at a glance, fitted into a small picture; to the scale at which `span` would fit, if given. */
export function Thumbnail({ sketch, span }: { sketch: Sketch; span?: Flat }) {
  const [low, high] = [sketch.low, sketch.high];
  const [wide, tall] = span ?? spanOf([sketch]);
  const perMetre = Math.min((WIDTH - 2 * EDGE) / wide, (HEIGHT - 2 * EDGE) / tall);
  const left = (WIDTH - (high[0] - low[0]) * perMetre) / 2;
  const at = ([u, v]: Flat): string =>
    `${(left + (u - low[0]) * perMetre).toFixed(1)} ${(HEIGHT - EDGE - (v - low[1]) * perMetre).toFixed(1)}`;
  const path = (points: readonly Flat[]) => points.map((point, i) => `${i ? "L" : "M"}${at(point)}`).join("");
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" aria-hidden="true">
      <path d={`${path(sketch.ground)}Z`} fill="var(--soil)" opacity={0.55} />
      <path
        d={sketch.leaves.map((leaf) => `M${at(leaf)}h0`).join("")}
        stroke="var(--leaf)"
        strokeWidth={Math.max(0.13 * perMetre, 3.5)}
        strokeLinecap="round"
        opacity={0.5}
      />
      {sketch.strokes.map((stroke, i) => (
        <path
          key={i}
          d={path(stroke.points)}
          stroke={INK[stroke.stuff] ?? "var(--ink)"}
          strokeWidth={Math.min(
            Math.max(
              stroke.thickness * perMetre,
              stroke.role === "panel" || stroke.role === "ring" ? 0.6 : 1,
            ),
            5,
          )}
          fill="none"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
