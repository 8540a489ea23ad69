import type { LinkReport, Report } from "../../api/client";

interface Props {
  report: Report;
  week: number;
  open: string | null;
  lit: string | null;
  onOpen: (key: string) => void;
  onPoint: (key: string | null) => void;
}

const PITCH = 61;
const HEAD = 44;
const FOOT = 28;
const RING = { width: 24, height: 52 };

interface Placed {
  link: LinkReport;
  column: 0 | 1;
  row: number;
}

/** Hang the links: the first path straight down, what forks off beside it. */
function hang(links: readonly LinkReport[]): Placed[] {
  const byKey = new Map(links.map((link) => [link.key, link]));
  const placed = new Map<string, Placed>();
  const walk = (key: string, column: 0 | 1, row: number): void => {
    const link = byKey.get(key);
    if (!link || placed.has(key)) return;
    placed.set(key, { link, column, row });
    const next = link.hands_to.filter((to) => !placed.has(to));
    next.forEach((to, index) => {
      walk(to, index === 0 ? column : 1, row + 1 + (column === 1 ? index : 0));
    });
  };
  const reached = new Set(links.flatMap((link) => link.hands_to));
  const roots = links.filter((link) => !reached.has(link.key));
  roots.forEach((link, index) => {
    walk(link.key, index === 0 ? 0 : 1, 0);
  });
  return [...placed.values()];
}

/** The load path as a chain from fruit to soil: thick is heavily loaded, a long core is much used, open is weakest. */
export function Chain({ report, week, open, lit, onOpen, onPoint }: Props) {
  const placed = hang(report.links);
  const rows = Math.max(...placed.map((p) => p.row)) + 1;
  const height = HEAD + rows * PITCH + FOOT;
  const x = (column: 0 | 1) => (column === 0 ? 18 : 166);
  const y = (row: number) => HEAD + row * PITCH;
  const weakest = report.weeks[week]?.weakest ?? report.headline.weakest;
  const at = new Map(placed.map((p) => [p.link.key, p]));
  return (
    <svg viewBox={`0 0 286 ${height}`} width="100%" role="group" aria-label="Load path, fruit to soil" style={{ display: "block", overflow: "visible" }}>
      <path d={`M18 30V${HEAD + 4}`} stroke="var(--ink)" strokeWidth={2} />
      <path d="M18 2q-2 5 -7 6q4 1 7 0q3 1 7 0q-5 -1 -7 -6" fill="var(--leaf2)" />
      <circle cx={18} cy={20} r={12} fill="var(--fruit)" stroke="var(--ink)" strokeWidth={1.6} />
      <text x={38} y={18} fontSize={13} fill="var(--ink2)">
        the crop and the wind on it
      </text>
      {placed.flatMap(({ link, column, row }) =>
        link.hands_to.map((to) => {
          const next = at.get(to);
          if (!next) return null;
          const [x0, y0, x1, y1] = [x(column), y(row) + RING.height - 5, x(next.column), y(next.row) + 5];
          const d = x0 === x1 ? `M${x0} ${y0}V${y1}` : `M${x0} ${y0}V${y0 + 11}H${x1}V${y1}`;
          return <path key={link.key + to} d={d} stroke="var(--ink)" strokeWidth={x0 === x1 ? 4.5 : 2} fill="none" strokeLinecap="round" />;
        }),
      )}
      {placed.map(({ link, column, row }) => {
        const use = link.use[week] ?? 0;
        const weak = link.key === weakest;
        const ink = weak ? "var(--weak)" : "var(--ink)";
        const thick = Math.min(1.6 + 1.9 * Math.log10(1 + link.carries / 12), 6.5);
        const [cx, top] = [x(column), y(row)];
        const half = RING.width / 2 - 1;
        const inner = RING.height - 18;
        const core = Math.min(use, 1) * inner;
        const ring = weak
          ? `M${cx + half + 5} ${top + 11}l-5 5V${top + 12}a${half} ${half} 0 0 0 ${-2 * half} 0V${top + RING.height - 12}a${half} ${half} 0 0 0 ${2 * half} 0v-4l5 5`
          : `M${cx - half} ${top + 12}a${half} ${half} 0 0 1 ${2 * half} 0V${top + RING.height - 12}a${half} ${half} 0 0 1 ${-2 * half} 0Z`;
        const state = use > 1 ? "falls short" : use > 0.85 ? "close" : "holds";
        const words = `${link.title}: ${state}, use ${use.toFixed(2)}${weak ? ", the weakest link" : ""}`;
        return (
          <g
            key={link.key}
            className="chainlink"
            role="button"
            tabIndex={0}
            aria-label={words}
            aria-pressed={open === link.key}
            onClick={() => onOpen(link.key)}
            onKeyDown={(event) => {
              if (event.key === "Enter" || event.key === " ") {
                event.preventDefault();
                onOpen(link.key);
              }
            }}
            onPointerEnter={() => onPoint(link.key)}
            onPointerLeave={() => onPoint(null)}
          >
            <rect className="hit" x={cx - 17} y={top - 3} width={column === 0 ? 145 : 136} height={RING.height + 6} fill={open === link.key || lit === link.key ? "var(--press)" : "transparent"} />
            <rect x={cx - 3.5} y={top + RING.height - 9 - core} width={7} height={core} fill={ink} />
            <path d={`M${cx - 3.5} ${top + 9}h7v${inner}h-7z`} fill="none" stroke={ink} strokeWidth={0.8} opacity={0.5} />
            <path d={ring} fill="none" stroke={ink} strokeWidth={thick} strokeLinecap="butt" />
            <text x={cx + 21} y={top + 15} fontSize={15} fontWeight={600} fill={ink}>
              {link.title}
            </text>
            <text x={cx + 21} y={top + 31} fontSize={13.5} fill={weak ? ink : "var(--ink2)"} className="narrow">
              {`${state}, ${use.toFixed(2)} used`}
            </text>
            <text x={cx + 21} y={top + 46} fontSize={12.5} fill="var(--ink2)" className="narrow">
              {weak ? "opens first" : link.carries_text}
            </text>
          </g>
        );
      })}
      <path d={`M0 ${height - 22}H286`} stroke="var(--ink)" strokeWidth={1.6} />
      <path d={`M4 ${height - 12}h20M48 ${height - 8}h16M90 ${height - 13}h22M140 ${height - 8}h18M186 ${height - 13}h22M236 ${height - 9}h18`} stroke="var(--soil2)" strokeWidth={1.4} />
    </svg>
  );
}
