import type { Schemas } from "../../api/client";

const SIZE = 132;
const SCALE = SIZE / 0.2; // pixels a metre
const INKS: Record<string, string> = {
  wood: "--wood",
  cane: "--cane",
  metal: "--metal",
  soil: "--soil2",
  leaf: "--leaf2",
};

/** How two things are joined. */
export function Joint({ joint }: { joint: Schemas["JointReport"] }) {
  const at = ([x, y]: readonly [number, number]) =>
    `${(SIZE / 2 + x * SCALE).toFixed(1)} ${(SIZE / 2 - y * SCALE).toFixed(1)}`;
  return (
    <figure className="joint">
      <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={joint.name}>
        {joint.strokes.map((stroke, i) => {
          const ink = `var(${INKS[stroke.ink] ?? "--ink"})`;
          const d = stroke.points.map((point, n) => `${n ? "L" : "M"}${at(point)}`).join("");
          return stroke.points.length === 1 ? (
            <path key={i} d={`${d}h0`} stroke={ink} strokeWidth={stroke.wide * SCALE} strokeLinecap="round" />
          ) : (
            <path
              key={i}
              d={stroke.closed ? `${d}Z` : d}
              stroke={ink}
              strokeWidth={Math.max(stroke.wide * SCALE * 0.8, 1)}
              strokeLinejoin="round"
              fill="none"
            />
          );
        })}
      </svg>
      <figcaption>
        <strong>{joint.name}</strong>
        <br />
        {joint.how}
      </figcaption>
    </figure>
  );
}
