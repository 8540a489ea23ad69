import type { StructureMark } from "../api/client";
import { pathOf } from "./BedShape";
import { INK } from "./inks";
import type { Scale } from "./scale";

const HEAVY = new Set(["rail", "strut", "arm"]);

/**
 * A structure from above: its mesh and wires as lines, its posts as squares, its guys with their anchors, its
 * plants as dots.
 */
export function StructureShape({
  structure,
  scale,
  chosen,
}: {
  structure: StructureMark;
  scale: Scale;
  chosen: boolean;
}) {
  const { at, perMetre } = scale;
  const dots = structure.plants
    .map(
      (plant) =>
        `M${at(plant)
          .map((n) => n.toFixed(1))
          .join(" ")}h0`,
    )
    .join("");
  const lines = structure.strokes.filter((stroke) => stroke.points.length > 1);
  const uprights = structure.strokes.filter((stroke) => stroke.points.length === 1);
  const side = Math.max(0.05 * perMetre, chosen ? 7 : 5);
  return (
    <g fill="none">
      <path
        d={dots}
        stroke="var(--leaf)"
        strokeWidth={Math.min(Math.max(0.22 * perMetre, 4), 16)}
        strokeLinecap="round"
        opacity={0.75}
      />
      <path d={dots} stroke="var(--leaf2)" strokeWidth={2.4} strokeLinecap="round" />
      <path
        d={pathOf(structure.row, at, false)}
        stroke={chosen ? "var(--ink)" : "var(--metal)"}
        strokeWidth={chosen ? 3 : 2}
      />
      {lines.map((stroke, i) =>
        stroke.role === "mesh" ? null : (
          <path
            key={i}
            d={pathOf(stroke.points, at, false)}
            stroke={chosen ? "var(--ink)" : (INK[stroke.stuff] ?? "var(--ink)")}
            strokeWidth={HEAVY.has(stroke.role) ? 3 : 1.4}
            strokeDasharray={stroke.role === "guy" ? "5 3" : undefined}
          />
        ),
      )}
      {uprights.map((stroke, i) => {
        const [x, y] = at(stroke.points[0] ?? [0, 0]);
        if (stroke.role === "stem")
          return <circle key={i} cx={x} cy={y} r={2} fill={INK[stroke.stuff] ?? "var(--ink)"} />;
        return stroke.role === "anchor" ? (
          <circle
            key={i}
            cx={x}
            cy={y}
            r={4}
            stroke={chosen ? "var(--ink)" : "var(--metal)"}
            strokeWidth={2}
          />
        ) : (
          <rect
            key={i}
            x={x - side / 2}
            y={y - side / 2}
            width={side}
            height={side}
            fill={chosen ? "var(--ink)" : (INK[stroke.stuff] ?? "var(--ink)")}
          />
        );
      })}
    </g>
  );
}
