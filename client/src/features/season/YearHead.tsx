import type { Year } from "../../api/season";
import { across, monthsOf, sayMonth, type Scale } from "./days";
import { say } from "../../texts/say";

const HIGH = 34;

/** The months over a year, with its frosts and today. */
export function YearHead({ scale, names, report }: { scale: Scale; names: number; report: Year["report"] }) {
  const marks: [string, string][] = [];
  if (report.last_frost) marks.push([report.last_frost, say("season.lastFrost")]);
  if (report.first_frost) marks.push([report.first_frost, say("season.firstFrost")]);
  return (
    <div className="yearhead" style={{ paddingLeft: names }}>
      <svg width={scale.width} height={HIGH} aria-hidden="true">
        {monthsOf(scale).map((month) => (
          <g key={month} transform={`translate(${across(scale, month)} 0)`}>
            <path d={`M0 18V${HIGH}`} stroke="var(--hair)" />
            <text className="caption" x={4} y={HIGH - 4}>
              {sayMonth(month)}
            </text>
          </g>
        ))}
        {marks.map(([day, words]) => (
          <text key={words} className="caption" x={across(scale, day)} y={13} textAnchor="middle">
            {words}
          </text>
        ))}
      </svg>
    </div>
  );
}
