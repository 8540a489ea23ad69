import type { View } from "../api/client";
import type { Scale } from "./scale";

interface Props {
  view: View;
  scale: Scale;
  width: number;
  height: number;
}

/** Cut earth: native soil with its bedding strokes, any bed fill darker and behind its boards. */
export function Ground({ view, scale, width, height }: Props) {
  const [x0, top] = scale.at([view.bed[0][0], 0]);
  const [x1] = scale.at([view.bed[1][0], 0]);
  if (view.name === "plan") {
    const [a, b] = [scale.at(view.bed[0]), scale.at(view.bed[1])];
    return <rect x={a[0]} y={b[1]} width={b[0] - a[0]} height={a[1] - b[1]} fill="var(--soil)" stroke="var(--soil2)" strokeWidth={1.4} />;
  }
  const deep = view.fill_depth * scale.perMetre;
  const strokes: string[] = [];
  for (let row = 0; row * 15 + 12 < height - top; row += 1)
    for (let x = (row % 2) * 21 + 6; x < width; x += 42) strokes.push(`M${x} ${(top + deep + row * 15 + 12).toFixed(0)}h${8 + ((row * 7 + x) % 9)}`);
  return (
    <g>
      <rect x={0} y={top + deep} width={width} height={Math.max(height - top - deep, 0)} fill="var(--soil)" />
      <path d={strokes.join("")} stroke="var(--soil2)" strokeWidth={1} opacity={0.5} />
      {deep > 0 && (
        <>
          <rect x={x0} y={top} width={x1 - x0} height={deep} fill="var(--fill)" />
          <path d={`M${x0} ${top - 6}v${deep + 6}M${x1} ${top - 6}v${deep + 6}`} stroke="var(--wood)" strokeWidth={Math.max(0.038 * scale.perMetre, 3)} />
          <path d={`M0 ${top + deep}H${x0}M${x1} ${top + deep}H${width}`} stroke="var(--ink)" strokeWidth={1.5} />
        </>
      )}
      <path d={deep > 0 ? `M${x0} ${top}H${x1}` : `M0 ${top}H${width}`} stroke="var(--ink)" strokeWidth={2} />
      {deep === 0 && <path d={`M${x0} ${top - 4}v9M${x1} ${top - 4}v9`} stroke="var(--ink)" strokeWidth={1.4} />}
    </g>
  );
}
