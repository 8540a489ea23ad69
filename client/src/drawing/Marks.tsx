import type { View } from "../api/client";
import type { Flat, Scale } from "./scale";

const INK: Record<string, string> = { post: "var(--metal)", rail: "var(--metal)", strut: "var(--wood)", mesh: "var(--metal)", wire: "var(--metal)", guy: "var(--metal)" };

interface Props {
  view: View;
  scale: Scale;
  lit: ReadonlySet<string>;
  weak: ReadonlySet<string>;
  bend: (point: Flat) => Flat;
  onPoint: (member: string | null) => void;
  onOpen: (member: string) => void;
}

function grid(view: View["marks"][number], scale: Scale): string {
  const [a, , c] = view.points;
  if (!view.grid || !a || !c) return "";
  const [x0, z0] = a;
  const [x1, z1] = c;
  let d = "";
  const line = (from: Flat, to: Flat) => {
    const [p, q] = [scale.at(from), scale.at(to)];
    d += `M${p[0].toFixed(1)} ${p[1].toFixed(1)}L${q[0].toFixed(1)} ${q[1].toFixed(1)}`;
  };
  for (let x = Math.ceil(x0 / view.grid[0] - 0.01) * view.grid[0]; x <= x1 + 0.001; x += view.grid[0]) line([x, z0], [x, z1]);
  for (let z = z0; z <= z1 + 0.001; z += view.grid[1]) line([x0, z], [x1, z]);
  line([x0, z1], [x1, z1]);
  return d;
}

/** The members of a view in ink; what a pointed-at link covers is heavier, the weakest is in the accent. */
export function Marks({ view, scale, lit, weak, bend, onPoint, onOpen }: Props) {
  const path = (points: readonly Flat[]) => points.map((point, i) => `${i ? "L" : "M"}${scale.at(bend(point)).map((n) => n.toFixed(1)).join(" ")}`).join("");
  return (
    <g>
      {view.marks.map((mark) => {
        const on = lit.has(mark.member);
        const ink = weak.has(mark.member) ? "var(--weak)" : on ? "var(--ink)" : (INK[mark.role] ?? "var(--ink)");
        const events = { onPointerEnter: () => onPoint(mark.member), onPointerLeave: () => onPoint(null), onClick: () => onOpen(mark.member) };
        if (mark.shape === "panel") {
          const d = mark.grid ? grid(mark, scale) : path(mark.points);
          const wire = Math.max(mark.thickness * scale.perMetre, 0.55);
          return <path key={mark.member} d={d} stroke={ink} strokeWidth={on ? wire + 0.9 : wire} opacity={on ? 1 : 0.85} fill="none" {...events} />;
        }
        if (mark.shape === "point") {
          const first = mark.points[0];
          if (!first) return null;
          const [x, y] = scale.at(bend(first));
          if (mark.role === "cap") return <rect key={mark.member} x={x - 4} y={y - 3} width={8} height={4} fill="var(--ink)" />;
          if (mark.role === "anchor") return <path key={mark.member} d={`M${x} ${y}l6 16m-10-5l9-2m-6 7l8-2`} stroke={ink} strokeWidth={2} fill="none" {...events} />;
          return <circle key={mark.member} cx={x} cy={y} r={on ? 4 : 2.2} fill={ink} {...events} />;
        }
        const width = Math.max(mark.thickness * scale.perMetre, mark.role === "guy" || mark.role === "wire" ? 1.2 : 2.2);
        const points = mark.points;
        const foot = points[0];
        const head = points[1];
        if (!foot || !head) return null;
        if (view.name === "plan" && mark.role === "post") {
          const [x, y] = scale.at(foot);
          const side = Math.max(width, 5);
          return <rect key={mark.member} x={x - side / 2} y={y - side / 2} width={side} height={side} fill={ink} {...events} />;
        }
        const tall = mark.role === "post" && foot[1] < 0 && head[1] > 0;
        const steps: Flat[] = tall ? Array.from({ length: 9 }, (_, i) => [foot[0], (head[1] * i) / 8] as const) : [...points];
        return (
          <g key={mark.member} {...events}>
            {tall && <path d={path([foot, [foot[0], 0]])} stroke={ink} strokeWidth={width} opacity={0.55} strokeDasharray={`${width * 1.4} ${width * 0.5}`} />}
            <path d={path(steps)} stroke={ink} strokeWidth={on ? width + 2 : width} fill="none" strokeLinejoin="round" />
            <path d={path(tall ? [foot, ...steps] : steps)} stroke="transparent" strokeWidth={Math.max(width, 14)} fill="none" />
          </g>
        );
      })}
    </g>
  );
}
