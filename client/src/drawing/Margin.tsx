import type { Flat, Scale } from "./scale";

interface Props {
  scale: Scale;
  width: number;
  height: number;
  middle: Flat;
  imperial: boolean;
}

const FOOT = 0.3048;
const STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100];

/** The longest round length that is no wider than so many pixels. */
export function barLength(perMetre: number, most: number, unit: number): number {
  return [...STEPS].reverse().find((step) => step * unit * perMetre <= most) ?? STEPS[0] ?? 1;
}

/** The ground's faint squares, the scale bar and the arrow north. */
export function Margin({ scale, width, height, middle, imperial }: Props) {
  const unit = imperial ? FOOT : 1;
  const { at, perMetre } = scale;
  const long = barLength(perMetre, 150, unit);
  const square = STEPS.find((step) => step * unit * perMetre >= 26) ?? 1;
  const gap = square * unit;
  const [halfWide, halfHigh] = [width / 2 / perMetre, height / 2 / perMetre];
  const first = (centre: number, half: number) => Math.ceil((centre - half) / gap) * gap;
  const count = (half: number) => Math.min(Math.floor((2 * half) / gap) + 1, 200);
  const xs = Array.from(
    { length: count(halfWide) },
    (_, i) => at([first(middle[0], halfWide) + i * gap, 0])[0],
  );
  const ys = Array.from(
    { length: count(halfHigh) },
    (_, i) => at([0, first(middle[1], halfHigh) + i * gap])[1],
  );
  const bar = long * unit * perMetre;
  return (
    <g pointerEvents="none">
      <path
        d={
          xs.map((x) => `M${x.toFixed(1)} 0V${height}`).join("") +
          ys.map((y) => `M0 ${y.toFixed(1)}H${width}`).join("")
        }
        stroke="var(--hair)"
        strokeWidth={0.6}
        opacity={0.45}
      />
      <g transform={`translate(16 ${height - 20})`}>
        <rect x={-8} y={-20} width={bar + 62} height={32} fill="var(--paper)" opacity={0.86} />
        <path d={`M0 -6V0H${bar}V-6M${bar / 2} 0V-4`} stroke="var(--ink)" strokeWidth={1.6} fill="none" />
        <text x={bar + 7} y={2} className="caption ink">
          {long} {imperial ? "ft" : "m"}
        </text>
      </g>
      <g transform={`translate(${width - 26} ${height - 40})`}>
        <rect x={-14} y={-22} width={28} height={62} fill="var(--paper)" opacity={0.86} />
        <path d="M0 22V-16M0 -16l-5.5 12M0 -16l5.5 12" stroke="var(--ink)" strokeWidth={1.6} fill="none" />
        <text y={36} textAnchor="middle" className="caption ink">
          N
        </text>
      </g>
    </g>
  );
}
