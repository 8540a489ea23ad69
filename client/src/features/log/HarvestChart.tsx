import type { Schemas } from "../../api/client";
import { useSize } from "../../drawing/useSize";
import { say } from "../../texts/say";

const HEIGHT = 130;
const FOOT = 18;
const LABEL = 100; // width that a date has [px]

/** Harvest by week: a line for what was forecast, a bar for what came. */
export function HarvestChart({ report }: { report: Schemas["LifeReport"] }) {
  const { weeks, most, most_text: top } = report;
  const { ref, width } = useSize<HTMLElement>();
  const step = width / weeks.length;
  const up = (kg: number) => HEIGHT - (kg / Math.max(most, 0.1)) * (HEIGHT - 14);
  const meant = weeks.map((week, at) => `${(at + 0.5) * step},${up(week.meant)}`).join(" ");
  const each = Math.ceil(LABEL / step);
  return (
    <figure className="harvestchart" ref={ref}>
      <svg width={width} height={HEIGHT + FOOT} role="img" aria-label={say("log.harvestByWeek")}>
        <line x1="0" x2={width} y1={HEIGHT} y2={HEIGHT} stroke="var(--ink)" />
        {weeks.map((week, at) => (
          <g key={week.monday}>
            {week.came !== null && week.came > 0 && (
              <rect
                x={at * step + step * 0.2}
                width={step * 0.6}
                y={up(week.came)}
                height={HEIGHT - up(week.came)}
                fill="var(--ink)"
              >
                <title>{say("log.cameInTheWeek", { monday: week.label, came: week.came_text })}</title>
              </rect>
            )}
            {at % each === 0 && (at + each <= weeks.length || at === 0) && (
              <text x={at * step} y={HEIGHT + 14} fontSize="12" fill="currentColor">
                {week.label}
              </text>
            )}
          </g>
        ))}
        <polyline points={meant} fill="none" stroke="currentColor" strokeDasharray="5 4" strokeWidth="1.5" />
      </svg>
      <figcaption className="quiet">{say("log.barsAreWhatCame", { most: top })}</figcaption>
    </figure>
  );
}
