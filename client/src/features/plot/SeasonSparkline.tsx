import { quayEdge, tideScale, waterline } from "../../drawing/seasonChart";

interface Props {
  season: readonly (readonly number[])[];
  design: number;
}

const SIZE = { left: 0, right: 0, top: 2, bottom: 1, width: 168, height: 40 };

/**
 * The season's tide in small: the quay the structure stands on, the rough weeks' water, the design gust's
 * line.
 */
export function SeasonSparkline({ season, design }: Props) {
  const limits = season.map(([limit = 0]) => limit);
  const rough = season.map(([, gust = 0]) => gust);
  const most = Math.max(design * 1.35, ...rough);
  const { x, y, floor } = tideScale(SIZE, season.length, most);
  const edge = quayEdge(limits, x, y);
  return (
    <svg
      width={SIZE.width}
      height={SIZE.height}
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      aria-hidden="true"
      style={{ display: "block", margin: "4px 0 2px" }}
    >
      <path d={`${edge}V${floor}H0Z`} fill="var(--stone)" />
      <rect
        x={0}
        y={y(design)}
        width={SIZE.width}
        height={floor - y(design)}
        fill="var(--water2)"
        opacity={0.42}
      />
      <path d={waterline(rough, x, y, floor, 1.2)} fill="var(--water)" opacity={0.85} />
      <path d={`M0 ${y(design)}H${SIZE.width}`} stroke="var(--water)" strokeWidth={1.6} />
      <path d={edge} stroke="var(--ink)" strokeWidth={2.4} fill="none" />
    </svg>
  );
}
