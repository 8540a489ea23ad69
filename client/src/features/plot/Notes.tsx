import type { Schemas } from "../../api/client";
import { pathOf } from "../../drawing/BedShape";
import type { Scale } from "../../drawing/scale";
import type { Guide } from "../../drawing/snap";

/** The shadow of each row of leaves, darker the more leaf there is. */
export function Shadows({ shade, scale }: { shade: Schemas["ShadeOut"]; scale: Scale }) {
  return (
    <g pointerEvents="none">
      <pattern
        id="shadow-lines"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(35)"
      >
        <path d="M0 3H6" stroke="var(--ink)" strokeWidth="1" />
      </pattern>
      {shade.shadows.map(([outline, cover], i) => (
        <g key={i} opacity={0.25 + 0.5 * cover}>
          <path d={pathOf(outline, scale.at)} fill="var(--shadow)" opacity={0.45} />
          <path d={pathOf(outline, scale.at)} fill="url(#shadow-lines)" opacity={0.7} />
        </g>
      ))}
    </g>
  );
}

/** The lines along which something was brought into line with its neighbours. */
export function Guides({ guides, scale }: { guides: readonly Guide[]; scale: Scale }) {
  return (
    <g pointerEvents="none">
      {guides.map((guide) => {
        const a = scale.at(guide.upright ? [guide.at, guide.from] : [guide.from, guide.at]);
        const b = scale.at(guide.upright ? [guide.at, guide.to] : [guide.to, guide.at]);
        return (
          <path
            key={`${guide.upright}${guide.at}`}
            d={`M${a.join(" ")}L${b.join(" ")}`}
            stroke="var(--ink)"
            strokeWidth={1}
            strokeDasharray="2 4"
          />
        );
      })}
    </g>
  );
}

/** Distances to the nearest neighbours, while something is moved. */
export function Gaps({ gaps, scale }: { gaps: readonly Schemas["Gap"][]; scale: Scale }) {
  return (
    <g pointerEvents="none" className="plannames">
      {gaps.map((gap) => {
        const [a, b] = [scale.at(gap.start), scale.at(gap.end)];
        if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 6) return null;
        return (
          <g key={gap.to}>
            <path
              d={`M${a.join(" ")}L${b.join(" ")}M${a[0] - 4} ${a[1] + 4}l8 -8M${b[0] - 4} ${b[1] + 4}l8 -8`}
              stroke="var(--ink)"
              strokeWidth={1.2}
            />
            <text x={(a[0] + b[0]) / 2 + 5} y={(a[1] + b[1]) / 2 - 5} className="caption ink">
              {gap.text}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Where something is in the way: a small flag in ink, filled when it is wrong. */
export function WarningMarks({
  warnings,
  scale,
  chosen,
}: {
  warnings: readonly Schemas["Warned"][];
  scale: Scale;
  chosen: string | null;
}) {
  return (
    <g pointerEvents="none">
      {warnings.map((warning, i) => {
        const [x, y] = scale.at(warning.at);
        const about = chosen !== null && warning.things.includes(chosen);
        return (
          <g key={i} transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}>
            <title>{warning.text}</title>
            <path d="M0 0V-21" stroke="var(--ink)" strokeWidth={1.6} />
            <path
              d="M0 -21l13 4.5l-13 4.5z"
              fill={warning.level === "wrong" ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
              strokeWidth={1.6}
              strokeLinejoin="round"
            />
            <circle
              r={about ? 4.5 : 2.2}
              fill={about ? "none" : "var(--ink)"}
              stroke="var(--ink)"
              strokeWidth={1.6}
            />
          </g>
        );
      })}
    </g>
  );
}
