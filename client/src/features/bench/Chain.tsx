import type { Report } from "../../api/client";
import { hang } from "./hang";
import { Ring } from "./Ring";
import { say } from "../../texts/say";

interface Props {
  report: Report;
  week: number;
  open: string | null;
  lit: string | null;
  onOpen: (key: string) => void;
  onPoint: (key: string | null) => void;
}

const WIDTH = 300;
const PITCH = 59;
const HEAD = 40;
const FOOT = 30;
const TALL = 50;
const COLUMN = [20, 172] as const;

/**
 * The load path as a chain from fruit to soil: thick is heavily loaded, a long core is much used, open is
 * weakest.
 */
export function Chain({ report, week, open, lit, onOpen, onPoint }: Props) {
  const placed = hang(report.links);
  const rows = Math.max(...placed.map((p) => p.row)) + 1;
  const height = HEAD + rows * PITCH + FOOT;
  const y = (row: number) => HEAD + row * PITCH;
  const weakest = report.weeks[week]?.weakest ?? report.headline.weakest;
  const at = new Map(placed.map((p) => [p.link.key, p]));
  const level = height - 22;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      role="group"
      aria-label={say("bench.loadPathFruitToSoil")}
      style={{ display: "block", overflow: "visible" }}
    >
      <path d="M20 1q-2 5 -8 6q5 1 8 0q3 1 8 0q-6 -1 -8 -6" fill="var(--leaf2)" />
      <circle cx={20} cy={18} r={11} fill="var(--fruit)" stroke="var(--ink)" strokeWidth={1.6} />
      <path d={`M20 29V${HEAD + 9}`} stroke="var(--ink)" strokeWidth={4.5} strokeLinecap="round" />
      <text x={41} y={22} fontSize={13} fill="var(--ink2)">
        {say("bench.cropAndWind")}
      </text>
      {placed.flatMap(({ link, column, row }) => {
        const [x0, foot] = [COLUMN[column], y(row) + TALL - 9];
        const below = link.hands_to.map((to) => {
          const next = at.get(to);
          if (!next) return null;
          const [x1, head] = [COLUMN[next.column], y(next.row) + 9];
          const past = x0 === x1 && next.row > row + 1; // round the links between
          const bar = past
            ? `M${x0 - 10} ${foot - 3}h-8V${head + 3}h8`
            : x0 === x1
              ? `M${x0} ${foot}V${head}`
              : `M${x0} ${foot}v12H${x1}V${head}`;
          return (
            <path
              key={link.key + to}
              d={bar}
              stroke="var(--ink)"
              strokeWidth={x0 === x1 && !past ? 4.5 : 2.2}
              strokeLinejoin="round"
              strokeLinecap="round"
              fill="none"
            />
          );
        });
        const toSoil =
          link.hands_to.length === 0
            ? [
                <path
                  key={`${link.key}-soil`}
                  d={
                    row === rows - 1
                      ? `M${x0} ${foot}V${level + 9}m-6 -6l6 6l6 -6`
                      : `M${x0} ${foot}v13m-9 0h18m-3 4l-4 5m-3 -5l-4 5m12 -10`
                  }
                  stroke="var(--ink)"
                  strokeWidth={2.2}
                  fill="none"
                  strokeLinejoin="round"
                />,
              ]
            : [];
        return [...below, ...toSoil];
      })}
      {placed.map(({ link, column, row }) => (
        <Ring
          key={link.key}
          link={link}
          week={week}
          x={COLUMN[column]}
          y={y(row)}
          weak={link.key === weakest}
          open={open === link.key}
          lit={lit === link.key}
          onOpen={onOpen}
          onPoint={onPoint}
        />
      ))}
      <path d={`M0 ${level}H${WIDTH}`} stroke="var(--ink)" strokeWidth={1.8} />
      <path
        d={`M40 ${level + 7}h14M74 ${level + 13}h20M112 ${level + 6}h12M140 ${level + 14}h18M196 ${level + 8}h20M240 ${level + 14}h16M272 ${level + 7}h14`}
        stroke="var(--soil2)"
        strokeWidth={1.4}
      />
    </svg>
  );
}
