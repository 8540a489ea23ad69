import type { FeatureMark } from "../api/client";
import { pathOf } from "./BedShape";
import type { Scale } from "./scale";

const DASH: Record<string, string> = { "drip-line": "1.5 5", "water-pipe": "14 4 3 4", cable: "8 5" };

/** A path, a wall, a fence, a buried line with the ground to keep off, a post or a stump, from above. */
export function FeatureShape({
  feature,
  scale,
  chosen,
}: {
  feature: FeatureMark;
  scale: Scale;
  chosen: boolean;
}) {
  const { at, perMetre } = scale;
  const ink = chosen ? "var(--ink)" : "var(--ink2)";
  const [first] = feature.points;
  if (!first) return null;
  const [x, y] = at(first);
  if (feature.round) {
    const r = Math.max((feature.width / 2) * perMetre, 3.5);
    return feature.kind === "stump" ? (
      <g>
        <circle
          cx={x}
          cy={y}
          r={r}
          fill="var(--soil)"
          stroke={chosen ? "var(--ink)" : "var(--wood)"}
          strokeWidth={chosen ? 3 : 2}
        />
        <circle cx={x} cy={y} r={r * 0.55} fill="none" stroke="var(--wood)" />
      </g>
    ) : (
      <g>
        <circle cx={x} cy={y} r={r + 4} fill="none" stroke={ink} strokeWidth={chosen ? 2 : 1} />
        <circle cx={x} cy={y} r={r} fill="var(--metal)" />
      </g>
    );
  }
  const d = pathOf(feature.points, at, false);
  const width = Math.max(feature.width * perMetre, 2);
  if (feature.kind === "path")
    return (
      <g fill="none" strokeLinejoin="round">
        <path d={d} stroke={chosen ? "var(--ink)" : "var(--hair)"} strokeWidth={width + (chosen ? 4 : 2)} />
        <path d={d} stroke="var(--paper2)" strokeWidth={width} />
      </g>
    );
  if (feature.kind === "wall")
    return (
      <g fill="none">
        <path d={d} stroke={chosen ? "var(--ink)" : "var(--stone2)"} strokeWidth={width + (chosen ? 4 : 2)} />
        <path d={d} stroke="var(--stone)" strokeWidth={width} />
        <path
          d={d}
          stroke="var(--stone2)"
          strokeWidth={width}
          strokeDasharray={`1.2 ${Math.max(perMetre * 0.4, 8)}`}
        />
      </g>
    );
  if (feature.kind === "fence")
    return (
      <g fill="none">
        <path
          d={d}
          stroke={chosen ? "var(--ink)" : "var(--wood)"}
          strokeWidth={Math.max(width, chosen ? 4 : 2)}
        />
        <path
          d={d}
          stroke={chosen ? "var(--ink)" : "var(--wood)"}
          strokeWidth={Math.max(width, 3) + 5}
          strokeDasharray={`3 ${Math.max(1.8 * perMetre - 3, 6)}`}
        />
      </g>
    );
  if (feature.kind === "door") return <Door d={d} feature={feature} scale={scale} chosen={chosen} />;
  const pipe = feature.kind !== "cable";
  return (
    <g fill="none" strokeLinejoin="round">
      <path
        d={d}
        stroke={pipe ? "var(--water)" : "var(--ink2)"}
        strokeOpacity={chosen ? 0.26 : 0.12}
        strokeWidth={(feature.keep * 2 + feature.width) * perMetre}
      />
      <path
        d={d}
        stroke={chosen ? "var(--ink)" : pipe ? "var(--water)" : "var(--ink2)"}
        strokeWidth={chosen ? 3 : feature.kind === "drip-line" ? 2.6 : 2}
        strokeDasharray={DASH[feature.kind]}
        strokeLinecap={feature.kind === "drip-line" ? "round" : "butt"}
      />
    </g>
  );
}

/** A door or gate: its leaf, and a quarter of a circle where it swings, on either side. */
function Door({
  d,
  feature,
  scale,
  chosen,
}: {
  d: string;
  feature: FeatureMark;
  scale: Scale;
  chosen: boolean;
}) {
  const [hinge, shut] = feature.points;
  if (!hinge || !shut) return null;
  const [x, y] = scale.at(hinge);
  const [u, v] = scale.at(shut);
  const long = Math.hypot(u - x, v - y);
  const [dx, dy] = [v - y, x - u];
  const swung = (side: 1 | -1) =>
    `M${u} ${v}A${long} ${long} 0 0 ${side > 0 ? 0 : 1} ${x + side * dx} ${y + side * dy}`;
  return (
    <g fill="none">
      <path d={d} stroke={chosen ? "var(--ink)" : "var(--wood)"} strokeWidth={chosen ? 5 : 4} />
      <path d={swung(1) + swung(-1)} stroke={chosen ? "var(--ink)" : "var(--ink2)"} strokeDasharray="4 4" />
    </g>
  );
}
