import { type Draft, type Schemas } from "../../api/client";
import { useCurve } from "../../api/calculated";
import { curveMarks } from "../../drawing/curve";
import { useSettled } from "../../ui/useSettled";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  option: string;
  onValue: (value: unknown) => void;
}

const SIZE = { width: 232, height: 128 };

/**
 * What one option moves: the limit gust as a line, the cost as a dashed one, the present value marked; every
 * point can be taken.
 */
export function OptionCurve({ structure, draft, option, onValue }: Props) {
  const settled = useSettled(draft);
  const found = useCurve(structure, settled, option);
  if (!found.data) return <p className="quiet">{say("common.calculating")}</p>;
  const { points, present, ordered, says, label } = found.data;
  if (!ordered)
    return (
      <div className="moves" role="group" aria-label={say("bench.effectOfOnStrengthAndCost", { label })}>
        <p>{says}</p>
        <ul className="movelist">
          {points.map((point, i) => (
            <li key={String(point.value)}>
              <button
                type="button"
                className="plain"
                aria-pressed={i === present}
                onClick={() => onValue(point.value)}
              >
                {point.text}
              </button>
              <span className="narrow">
                {point.limit_text}, {point.cost_text}
              </span>
            </li>
          ))}
        </ul>
      </div>
    );
  const marks = curveMarks(found.data, SIZE);
  return (
    <div className="moves" role="group" aria-label={say("bench.effectOfOnStrengthAndCost", { label })}>
      <p>{says}</p>
      <svg
        width={SIZE.width}
        height={SIZE.height}
        role="img"
        aria-label={`${says} ${points.map((point) => `${point.text}: ${point.limit_text}, ${point.cost_text}`).join("; ")}`}
      >
        <path d={marks.design} stroke="var(--water)" strokeWidth={1.6} />
        <path d={marks.cost} fill="none" stroke="var(--ink2)" strokeWidth={1.2} strokeDasharray="2 3" />
        <path d={marks.limit} fill="none" stroke="var(--ink)" strokeWidth={2.6} strokeLinejoin="round" />
        <path d={`M${marks.now[0]} ${marks.top}V${marks.foot}`} stroke="var(--ink)" strokeWidth={1} />
        <circle
          cx={marks.now[0]}
          cy={marks.now[1]}
          r={5}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={2.4}
        />
        {marks.words.map((word) => (
          <text
            key={word.key}
            x={word.x}
            y={word.y}
            textAnchor={word.anchor}
            fontSize={12}
            fill="var(--ink2)"
            className="narrow"
          >
            {word.text}
          </text>
        ))}
        {marks.spots.map((spot, i) => {
          const point = points[i];
          return (
            point && (
              <rect
                key={i}
                x={spot.x}
                y={0}
                width={spot.width}
                height={SIZE.height}
                fill="transparent"
                style={{ cursor: "pointer" }}
                onClick={() => onValue(point.value)}
              >
                <title>
                  {say("bench.first", {
                    text: point.text,
                    limitText: point.limit_text,
                    costText: point.cost_text,
                    goes: point.governs,
                  })}
                </title>
              </rect>
            )
          );
        })}
      </svg>
    </div>
  );
}
