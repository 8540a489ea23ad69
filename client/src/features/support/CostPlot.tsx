import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

interface Props {
  ways: ReadonlyMap<string, Schemas["KindReport"]>;
  places: readonly Schemas["PlaceReport"][];
  pointed: string;
  onPoint: (family: string) => void;
  onChoose: (family: string) => void;
}

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, FOOT] = [880, 230, 64, 150, 14, 34];
const SELDOM = 3000; // seasons past which nobody tells the difference
const MARKS = [1, 10, 100, 1000] as const;

/** What a season costs against how often it fails: the ways that nothing beats are joined. */
export function CostPlot({ ways, places, pointed, onPoint, onChoose }: Props) {
  const shown = places.flatMap((place) => {
    const way = ways.get(place.family);
    return way ? [{ place, way }] : [];
  });
  if (shown.length < 2) return null;
  const dearest = Math.max(...shown.map(({ way }) => way.figures.yearly), 1);
  const x = (yearly: number) => LEFT + (yearly / dearest) * (WIDTH - LEFT - RIGHT);
  const y = (once: number) =>
    HEIGHT -
    FOOT -
    (Math.log(Math.min(Math.max(once, 1), SELDOM)) / Math.log(SELDOM)) * (HEIGHT - TOP - FOOT);
  const edge = shown
    .filter(({ place }) => place.pareto_optimal)
    .sort((a, b) => a.way.figures.yearly - b.way.figures.yearly);
  return (
    <figure className="costplot">
      <figcaption className="quiet">{say("support.higherFailsLessOftenFurtherRight")}</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        width="100%"
        role="group"
        aria-label={say("support.costAgainstFailing")}
      >
        {MARKS.map((mark) => (
          <g key={mark}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(mark)} y2={y(mark)} stroke="var(--hair)" />
            <text x={LEFT - 8} y={y(mark) + 4} textAnchor="end" className="tick">
              {say("support.n1In", { mark })}
            </text>
          </g>
        ))}
        <line x1={LEFT} x2={WIDTH - RIGHT} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke="var(--ink)" />
        <text x={LEFT} y={HEIGHT - 12} className="tick">
          0
        </text>
        <text x={WIDTH - RIGHT} y={HEIGHT - 12} textAnchor="end" className="tick">
          {say("support.aSeason2", {
            yearly: shown.find(({ way }) => way.figures.yearly === dearest)?.way.told.yearly,
          })}
        </text>
        <polyline
          points={edge.map(({ way }) => `${x(way.figures.yearly)},${y(way.figures.once)}`).join(" ")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        {shown.map(({ place, way }) => (
          <g
            key={way.family}
            className="spot"
            data-lit={place.family === pointed}
            onPointerEnter={() => onPoint(way.family)}
            onPointerLeave={() => onPoint("")}
            onClick={() => onChoose(way.family)}
          >
            <circle
              cx={x(way.figures.yearly)}
              cy={y(way.figures.once)}
              r={place.family === pointed ? 8 : 5}
              fill={place.pareto_optimal ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
            />
            <title>
              {say("support.aSeason3", { name: way.name, yearly: way.told.yearly, once: way.told.once })}
            </title>
            {(place.pareto_optimal || place.family === pointed) && (
              <text x={x(way.figures.yearly) + 11} y={y(way.figures.once) + 4} className="tick">
                {way.name}
              </text>
            )}
          </g>
        ))}
      </svg>
    </figure>
  );
}
