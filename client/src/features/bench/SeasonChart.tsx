import type { KeyboardEvent, PointerEvent } from "react";

import type { Report } from "../../api/client";
import { useSize } from "../../drawing/useSize";
import { quayEdge, tideScale, waterline } from "../../drawing/seasonChart";
import { upTo } from "../../ui/upTo";
import { say } from "../../texts/say";

interface Props {
  report: Report;
  week: number;
  onWeek: (week: number) => void;
}

const HEIGHT = 172;
const STEPS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 4,
  PageDown: -4,
};

/** The season as a harbour: the quay's edge is the limit gust, the water the gusts each week brings. */
export function SeasonChart({ report, week, onWeek }: Props) {
  const { ref, width } = useSize<HTMLDivElement>();
  const { weeks, required_gust: design, speed_scale: scale } = report;
  const count = weeks.length;
  const wide = width > 620;
  const box = { left: wide ? 66 : 48, right: wide ? 22 : 12, top: 34, bottom: 27, width, height: HEIGHT };
  const most = Math.min(
    Math.max(
      design * 1.3,
      ...weeks.map((w) => w.rare * 1.12),
      Math.min(report.headline.limit * 1.25, design * 2.4),
    ),
    46,
  );
  const { x, y, floor, inner } = tideScale(box, count, most);
  const to = (next: number) => onWeek(Math.min(Math.max(next, 0), count - 1));
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left + box.left;
    to(Math.floor(((event.clientX - left) / inner) * count));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    const next =
      event.key === "Home" ? 0 : event.key === "End" ? count - 1 : step === undefined ? null : week + step;
    if (next === null) return;
    event.preventDefault();
    to(next);
  };
  const chosen = weeks[week];
  const worst = report.headline.week;
  const least = weeks[worst];
  const mid = (x(worst) + x(worst + 1)) / 2;
  const pace = most * scale > 50 ? 20 : most * scale > 22 ? 10 : 5;
  const marks = Array.from({ length: Math.floor((most * scale) / pace) }, (_, i) => ({
    at: ((i + 1) * pace) / scale,
    text: `${(i + 1) * pace}`,
  }));
  const every = Math.max(Math.ceil(62 / (inner / count)), 1);
  const edge = quayEdge(
    weeks.map((w) => w.limit),
    x,
    y,
  );
  const rough = waterline(
    weeks.map((w) => w.rare),
    x,
    y,
    floor,
    2.6,
  );
  const usual = waterline(
    weeks.map((w) => w.usual),
    x,
    y,
    floor,
    2.6,
  );
  const before = worst > count * 0.6;
  return (
    <div
      ref={ref}
      className="ribbon tideslider"
      role="slider"
      tabIndex={0}
      aria-label={say("bench.weekOfTheSeason")}
      aria-valuemin={0}
      aria-valuemax={count - 1}
      aria-valuenow={week}
      aria-valuetext={
        chosen ? say("bench.holds", { label: chosen.label, limitText: upTo(chosen.limit_text) }) : ""
      }
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag(event);
      }}
      onPointerMove={(event) => {
        if (event.buttons) drag(event);
      }}
    >
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={say("bench.gustTheSupportHoldsWeekBy")}
          style={{ display: "block" }}
        >
          <defs>
            <pattern id="courses" width="38" height="16" patternUnits="userSpaceOnUse">
              <path
                d="M0 .5H38M0 8.5H38M12 .5V8.5M31 8.5V16.5"
                stroke="var(--stone2)"
                strokeWidth="1"
                fill="none"
                opacity=".75"
              />
            </pattern>
            <pattern id="flood" width="12" height="9" patternUnits="userSpaceOnUse">
              <path d="M0 4q3 -3.4 6 0t6 0" stroke="var(--water)" strokeWidth="1.5" fill="none" />
            </pattern>
            <clipPath id="above">
              <path d={`${edge}V0H${x(0)}Z`} />
            </clipPath>
          </defs>
          <path d={`${edge}V${floor}H${x(0)}Z`} fill="var(--stone)" />
          <path d={`${edge}V${floor}H${x(0)}Z`} fill="url(#courses)" />
          <rect
            x={x(0)}
            y={y(design)}
            width={inner}
            height={floor - y(design)}
            fill="var(--water2)"
            opacity={0.42}
          />
          <path d={rough} fill="var(--water2)" opacity={0.85} />
          <path d={usual} fill="var(--water)" opacity={0.9} />
          <g clipPath="url(#above)">
            <rect x={x(0)} y={y(design)} width={inner} height={floor - y(design)} fill="url(#flood)" />
          </g>
          <path
            d={quayEdge(
              weeks.map((w) => w.saturated),
              x,
              y,
            )}
            stroke="var(--ink)"
            strokeWidth={1.3}
            strokeDasharray="2 3"
            fill="none"
          />
          <path d={`M${x(0)} ${y(design)}H${x(count)}`} stroke="var(--water)" strokeWidth={2} />
          <path d={edge} stroke="var(--ink)" strokeWidth={3.6} fill="none" />
          <g className="tidenote">
            <text x={x(0) + 8} y={y(design) - 6}>
              {wide
                ? say("bench.neededOnceInTenSeasons", { designText: report.headline.required_text })
                : say("bench.needed", { designText: report.headline.required_text })}
            </text>
            {wide && (
              <>
                <text x={x(0) + 8} y={Math.max(y(weeks[0]?.rare ?? 0) + 13, y(design) + 12)}>
                  {say("bench.aRoughWeek1In10")}
                </text>
                <text x={x(0) + 8} y={y(weeks[0]?.usual ?? 0) + 18}>
                  {say("bench.aUsualWeek")}
                </text>
              </>
            )}
          </g>
          {least && (
            <g stroke="var(--ink)" fill="none">
              <path d={`M${mid} ${y(design)}V${y(least.limit)}`} strokeWidth={3} />
              <path d={`M${mid - 6} ${y(design)}h12M${mid - 6} ${y(least.limit)}h12`} strokeWidth={2.2} />
              <text
                x={mid + (before ? -10 : 10)}
                y={(y(design) + y(least.limit)) / 2 + 5}
                fill="var(--ink)"
                strokeWidth={4}
                style={{ paintOrder: "stroke", stroke: "var(--paper)" }}
                fontSize={15}
                fontWeight={600}
                textAnchor={before ? "end" : "start"}
              >
                {report.headline.spare_text}
              </text>
            </g>
          )}
          {marks.map((mark) => (
            <g key={mark.text}>
              <path d={`M${box.left - 5} ${y(mark.at)}h5`} stroke="var(--ink2)" />
              <text
                x={box.left - 9}
                y={y(mark.at) + 4}
                fontSize={12.5}
                textAnchor="end"
                fill="var(--ink2)"
                className="narrow"
              >
                {mark.text}
              </text>
            </g>
          ))}
          <text
            x={box.left - 9}
            y={floor + 4}
            fontSize={12.5}
            textAnchor="end"
            fill="var(--ink2)"
            className="narrow"
          >
            {report.speed_unit}
          </text>
          <path d={`M${x(0)} ${floor}H${x(count)}`} stroke="var(--ink)" strokeWidth={1} />
          {weeks.map((w, i) =>
            i % every === 0 && x(i) < width - 40 ? (
              <text
                key={w.date}
                x={x(i) + 2}
                y={HEIGHT - 9}
                fontSize={12.5}
                fill="var(--ink2)"
                className="narrow"
              >
                {w.short}
              </text>
            ) : null,
          )}
          <g>
            <rect
              x={x(week)}
              y={box.top - 8}
              width={Math.max(inner / count, 3)}
              height={floor - box.top + 8}
              fill="var(--ink)"
              opacity={0.14}
            />
            <path d={`M${x(week + 0.5)} ${box.top - 8}V${floor}`} stroke="var(--ink)" strokeWidth={2} />
            <path d={`M${x(week + 0.5) - 8} ${floor}h16v9l-8 6l-8 -6z`} fill="var(--ink)" />
            <text
              x={Math.min(Math.max(x(week + 0.5), box.left + 120), width - 170)}
              y={19}
              textAnchor="middle"
              fontSize={14}
              fontWeight={600}
              fill="var(--ink)"
            >
              {chosen ? say("bench.holds", { label: chosen.label, limitText: upTo(chosen.limit_text) }) : ""}
            </text>
          </g>
        </svg>
      )}
    </div>
  );
}
