import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

interface Props {
  weeks: readonly Schemas["LifeWeek"][];
  imperial: boolean;
}

const WIDTH = 820;
const HEIGHT = 130;
const FOOT = 18;
const POUND = 0.45359237;

/** Harvest by week: a line for what was forecast, a bar for what came. */
export function HarvestChart({ weeks, imperial }: Props) {
  const shown = (kg: number) => (imperial ? kg / POUND : kg);
  const most = Math.max(...weeks.map((week) => Math.max(week.meant, week.came ?? 0)), 0.1);
  const step = WIDTH / weeks.length;
  const up = (kg: number) => HEIGHT - (kg / most) * (HEIGHT - 14);
  const meant = weeks.map((week, at) => `${(at + 0.5) * step},${up(week.meant)}`).join(" ");
  const unit = imperial ? "lb" : "kg";
  return (
    <figure className="harvestchart">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + FOOT}`}
        role="img"
        aria-label={say("log.harvestByWeek")}
        preserveAspectRatio="none"
      >
        <line x1="0" x2={WIDTH} y1={HEIGHT} y2={HEIGHT} stroke="var(--ink)" />
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
                <title>
                  {say("log.cameInTheWeek", { monday: week.label, came: shown(week.came).toFixed(1), unit })}
                </title>
              </rect>
            )}
            {at % Math.ceil(weeks.length / 8) === 0 && (
              <text x={at * step} y={HEIGHT + 14} fontSize="12" fill="currentColor">
                {week.label}
              </text>
            )}
          </g>
        ))}
        <polyline points={meant} fill="none" stroke="currentColor" strokeDasharray="5 4" strokeWidth="1.5" />
      </svg>
      <figcaption className="quiet">
        {say("log.barsAreWhatCame", { most: shown(most).toFixed(1), unit })}
      </figcaption>
    </figure>
  );
}
