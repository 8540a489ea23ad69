import type { View } from "../api/client";
import { Hatch } from "./Hatch";
import type { SheetLayout } from "./layout";

interface Props {
  views: Record<View["name"], View>;
  layout: SheetLayout;
}

/**
 * Earth cut open under side and end view, any bed fill between its boards, and the bed from above; two beds
 * where a path goes through between them.
 */
export function Ground({ views, layout }: Props) {
  const { ground, at, box } = layout;
  const fill = views.elevation.fill_depth * layout.perMetre;
  const gap = views.end.gap / 2;
  const beds = (["elevation", "end"] as const).flatMap((name) => {
    const [[u0], [u1]] = views[name].bed;
    const [least, most] = [box[name].x, box[name].x + box[name].width];
    const x = (u: number) => Math.min(Math.max(at[name]([u, 0])[0], least), most);
    const parts = name === "end" && gap > 0 ? [[u0, -gap] as const, [gap, u1] as const] : [[u0, u1] as const];
    return parts.map(([from, to]) => ({ name: `${name}${from}`, x0: x(from), x1: x(to) }));
  });
  const board = Math.max(0.038 * layout.perMetre, 3);
  const [[low, near], [high, far]] = views.plan.bed;
  const plans = (gap > 0 ? [[near, -gap] as const, [gap, far] as const] : [[near, far] as const]).map(
    ([from, to]) => {
      const [least, most] = [at.plan([low, from]), at.plan([high, to])];
      return { x: least[0], y: most[1], width: most[0] - least[0], height: least[1] - most[1] };
    },
  );
  const surface = ground.y + fill;
  return (
    <g>
      <defs>
        <Hatch id="native" kind={views.elevation.soil} colour="var(--soil2)" />
        <Hatch id="fill" kind={views.elevation.fill} colour="var(--soil3)" />
        <linearGradient id="fade" x1="0" x2="0" y1="0" y2="1">
          <stop offset="0.6" stopColor="#fff" />
          <stop offset="1" stopColor="#000" />
        </linearGradient>
        <mask id="deep">
          <rect
            x={0}
            y={surface}
            width={ground.width}
            height={Math.max(ground.height - fill, 0)}
            fill="url(#fade)"
          />
        </mask>
      </defs>
      <g mask="url(#deep)">
        <rect
          x={0}
          y={surface}
          width={ground.width}
          height={Math.max(ground.height - fill, 0)}
          fill="var(--soil)"
        />
        <rect
          x={0}
          y={surface}
          width={ground.width}
          height={Math.max(ground.height - fill, 0)}
          fill="url(#native)"
        />
      </g>
      {fill === 0 && <path d={`M0 ${ground.y}H${ground.width}`} stroke="var(--ink)" strokeWidth={2} />}
      {fill > 0 &&
        beds.map(({ name, x0, x1 }) => (
          <g key={name}>
            <rect x={x0} y={ground.y} width={x1 - x0} height={fill} fill="var(--fill)" />
            <rect x={x0} y={ground.y} width={x1 - x0} height={fill} fill="url(#fill)" />
            <path
              d={`M${x0 - board / 2} ${ground.y - 5}V${surface}M${x1 + board / 2} ${ground.y - 5}V${surface}`}
              stroke="var(--wood)"
              strokeWidth={board}
            />
            <path d={`M${x0} ${ground.y}H${x1}`} stroke="var(--ink)" strokeWidth={2} />
          </g>
        ))}
      {fill > 0 && (
        <path
          d={`M0 ${surface}${beds.map(({ x0, x1 }) => `H${x0}M${x1} ${surface}`).join("")}H${ground.width}`}
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
      {fill === 0 &&
        beds.map(({ name, x0, x1 }) => (
          <path
            key={name}
            d={`M${x0} ${ground.y - 5}v10M${x1} ${ground.y - 5}v10`}
            stroke="var(--ink)"
            strokeWidth={1.4}
          />
        ))}
      {plans.map((plan) => (
        <g key={plan.y}>
          <rect {...plan} fill={fill > 0 ? "var(--fill)" : "var(--soil)"} />
          <rect {...plan} fill={fill > 0 ? "url(#fill)" : "url(#native)"} />
          <rect
            {...plan}
            fill="none"
            stroke={fill > 0 ? "var(--wood)" : "var(--soil2)"}
            strokeWidth={fill > 0 ? board : 1.2}
          />
        </g>
      ))}
    </g>
  );
}
