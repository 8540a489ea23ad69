import type { View } from "../api/client";
import { INK } from "./inks";
import type { Flat, Scale } from "./scale";

const THIN = new Set(["guy", "wire", "string", "run"]);
type Mark = View["marks"][number];

interface Props {
  view: View;
  scale: Scale;
  lit: ReadonlySet<string>;
  weak: ReadonlySet<string>;
  bend: (point: Flat) => Flat;
  sag: number;
  short: boolean;
  onPoint?: ((member: string | null) => void) | undefined;
  onOpen?: ((member: string) => void) | undefined;
}

/** The wires of a panel, as one path. */
function grid(mark: Mark, scale: Scale): string {
  const [a, , c] = mark.points;
  if (!mark.grid || !a || !c) return "";
  const [x0, z0] = a;
  const [x1, z1] = c;
  let d = "";
  const line = (from: Flat, to: Flat) => {
    const [p, q] = [scale.at(from), scale.at(to)];
    d += `M${p[0].toFixed(1)} ${p[1].toFixed(1)}L${q[0].toFixed(1)} ${q[1].toFixed(1)}`;
  };
  for (let x = Math.ceil(x0 / mark.grid[0] - 0.01) * mark.grid[0]; x <= x1 + 0.001; x += mark.grid[0])
    line([x, z0], [x, z1]);
  for (let z = z0; z <= z1 + 0.001; z += mark.grid[1]) line([x0, z], [x1, z]);
  line([x0, z1], [x1, z1]);
  return d;
}

/**
 * The wedge of soil that a leaning post pushes aside: on both sides as seen from the side, to leeward from
 * the end.
 */
function wedge(mark: Mark, view: View["name"], at: Scale["at"]): string {
  const [foot, ground] = mark.points;
  if (!foot || !ground) return "";
  const deep = ground[1] - foot[1];
  const [low, high] = [mark.thickness / 6, Math.max(mark.thickness / 2, 0.07)];
  const corners: Flat[] =
    view === "end"
      ? [[foot[0], foot[1] + deep * 0.25], ground, [ground[0] + deep * 0.62, ground[1]]]
      : [
          [foot[0] - low, foot[1]],
          [ground[0] - high, ground[1]],
          [ground[0] + high, ground[1]],
          [foot[0] + low, foot[1]],
        ];
  return (
    corners
      .map(
        (corner, i) =>
          `${i ? "L" : "M"}${at(corner)
            .map((n) => n.toFixed(1))
            .join(" ")}`,
      )
      .join("") + "Z"
  );
}

/** A line that hangs between its points: as deep as the sag in the widest span, less in narrower ones. */
function hanging(points: readonly Flat[], sag: number, at: Scale["at"]): string {
  const spans = points.slice(1).map((point, i) => Math.abs(point[0] - (points[i]?.[0] ?? 0)));
  const widest = Math.max(...spans, 1e-9);
  return points
    .map((point, i) => {
      const [x, y] = at(point);
      const before = points[i - 1];
      if (!before) return `M${x.toFixed(1)} ${y.toFixed(1)}`;
      const low = sag * ((spans[i - 1] ?? 0) / widest) ** 2;
      const [cx, cy] = at([(before[0] + point[0]) / 2, (before[1] + point[1]) / 2 - 2 * low]);
      return `Q${cx.toFixed(1)} ${cy.toFixed(1)} ${x.toFixed(1)} ${y.toFixed(1)}`;
    })
    .join("");
}

/**
 * The members of a view in ink; what a pointed-at link covers is heavier, the weakest is in plain ink, and in
 * the accent if it falls short.
 */
export function Marks({ view, scale, lit, weak, short, bend, sag, onPoint, onOpen }: Props) {
  const { at } = scale;
  const path = (points: readonly Flat[]) =>
    points
      .map(
        (point, i) =>
          `${i ? "L" : "M"}${at(bend(point))
            .map((n) => n.toFixed(1))
            .join(" ")}`,
      )
      .join("");
  const drawn = view.name === "plan" ? view.marks.filter((mark) => mark.role !== "grip") : view.marks;
  const ordered = [...drawn].sort((a, b) => Number(b.role === "grip") - Number(a.role === "grip"));
  return (
    <g>
      {ordered.map((mark) => {
        const on = lit.has(mark.member);
        const hot = weak.has(mark.member);
        const ink =
          hot && short ? "var(--weak)" : hot || on ? "var(--ink)" : (INK[mark.stuff] ?? "var(--ink)");
        const events =
          onPoint && onOpen
            ? {
                onPointerEnter: () => onPoint(mark.member),
                onPointerLeave: () => onPoint(null),
                onClick: () => onOpen(mark.member),
              }
            : {};
        const first = mark.points[0];
        const second = mark.points[1];
        if (!first) return null;
        if (mark.role === "grip")
          return (
            <path
              key={mark.member}
              d={wedge(mark, view.name, at)}
              fill={hot || on ? ink : "var(--soil2)"}
              fillOpacity={hot ? 0.42 : on ? 0.3 : 0.16}
              stroke={ink}
              strokeWidth={hot || on ? 1.6 : 0.8}
              strokeDasharray={hot || on ? undefined : "3 3"}
              {...events}
            />
          );
        if (mark.shape === "panel") {
          const wire = Math.max(mark.thickness * scale.perMetre, 0.6);
          return (
            <path
              key={mark.member}
              d={mark.grid ? grid(mark, scale) : path(mark.points)}
              stroke={ink}
              strokeWidth={on || hot ? wire + 0.9 : wire}
              opacity={on || hot ? 1 : 0.8}
              fill="none"
              {...events}
            />
          );
        }
        if (mark.shape === "wires") {
          const wire = Math.max(mark.thickness * scale.perMetre, 0.7);
          return (
            <g key={mark.member} {...events}>
              <path
                d={mark.lines.map(path).join("")}
                stroke={ink}
                strokeWidth={on || hot ? wire + 0.9 : wire}
                opacity={on || hot ? 1 : 0.8}
                fill="none"
              />
              <path d={mark.lines.map(path).join("")} stroke="transparent" strokeWidth={7} fill="none" />
            </g>
          );
        }
        if (mark.shape === "point") {
          const [x, y] = at(bend(first));
          if (mark.role === "cap")
            return <path key={mark.member} d={`M${x - 4.5} ${y}v-3.5h9v3.5z`} fill="var(--ink)" />;
          if (mark.role === "anchor")
            return view.name === "plan" ? (
              <circle
                key={mark.member}
                cx={x}
                cy={y}
                r={4}
                fill="none"
                stroke={ink}
                strokeWidth={2}
                {...events}
              />
            ) : (
              <path
                key={mark.member}
                d={`M${x} ${y}l7 19m-12 -7l11 -3m-8 9l10 -3`}
                stroke={ink}
                strokeWidth={2}
                fill="none"
                {...events}
              />
            );
          return <circle key={mark.member} cx={x} cy={y} r={on || hot ? 4 : 2} fill={ink} {...events} />;
        }
        if (!second) return null;
        const width = Math.max(mark.thickness * scale.perMetre, THIN.has(mark.role) ? 1.3 : 2.4);
        if (view.name === "plan" && mark.role === "post") {
          const [x, y] = at(first);
          const side = Math.max(width, 6);
          return (
            <rect
              key={mark.member}
              x={x - side / 2}
              y={y - side / 2}
              width={side}
              height={side}
              fill={ink}
              {...events}
            />
          );
        }
        if (view.name === "plan" && first[0] === second[0] && first[1] === second[1]) {
          const [x, y] = at(first);
          return <circle key={mark.member} cx={x} cy={y} r={Math.max(width / 2, 2)} fill={ink} {...events} />;
        }
        if (mark.sags)
          return (
            <path
              key={mark.member}
              d={hanging(mark.points, sag, at)}
              stroke={ink}
              strokeWidth={on || hot ? width + 1 : width}
              fill="none"
              strokeLinejoin="round"
              {...events}
            />
          );
        const upright = mark.role === "post" && first[1] < 0 && second[1] > 0;
        const ground: Flat = [
          first[0] + ((second[0] - first[0]) * -first[1]) / Math.max(second[1] - first[1], 1e-9),
          0,
        ];
        const steps: Flat[] = upright
          ? Array.from(
              { length: 9 },
              (_, i) => [ground[0] + ((second[0] - ground[0]) * i) / 8, (second[1] * i) / 8] as const,
            )
          : [...mark.points];
        return (
          <g key={mark.member} {...events}>
            {upright && (
              <path
                d={path([first, ground])}
                stroke={ink}
                strokeWidth={width}
                strokeOpacity={0.75}
                strokeDasharray={`${Math.max(width * 1.5, 5)} 2.5`}
                fill="none"
              />
            )}
            <path
              d={path(steps)}
              stroke={ink}
              strokeWidth={on ? width + 2 : width}
              fill="none"
              strokeLinejoin="round"
            />
            <path
              d={path(upright ? [first, ...steps] : steps)}
              stroke="transparent"
              strokeWidth={Math.max(width, 14)}
              fill="none"
            />
          </g>
        );
      })}
    </g>
  );
}
