interface Props {
  limit: number;
  design: number;
}

const MOST = 45;
const WIDE = 150;

/** The quay in one line: stone to the limit gust, water to the design gust. */
export function Freeboard({ limit, design }: Props) {
  const x = (speed: number) => (Math.min(speed, MOST) / MOST) * WIDE;
  return (
    <svg width={WIDE} height="14" viewBox={`0 0 ${WIDE} 14`} aria-hidden="true" style={{ display: "block", margin: "3px 0" }}>
      <rect x="0" y="2" width={x(limit)} height="10" fill="var(--stone)" />
      <rect x="0" y="7" width={x(design)} height="5" fill="var(--water)" />
      <path d={`M${x(limit)} 0V14`} stroke="var(--ink)" strokeWidth="3" />
    </svg>
  );
}
