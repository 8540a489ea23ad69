import type { KeyboardEvent, PointerEvent } from "react";

import type { Report } from "../../api/client";
import { useSize } from "../../drawing/useSize";

interface Props {
  report: Report;
  week: number;
  units: { factor: number; unit: string };
  speed: (metresPerSecond: number) => string;
  onWeek: (week: number) => void;
}

const HEIGHT = 168;
const BOX = { left: 64, right: 18, top: 30, bottom: 28 };

/** The season as a harbour: the quay's edge is the limit gust, the water the gusts each week brings. */
export function Tide({ report, week, units, speed, onWeek }: Props) {
  const { ref, width } = useSize<HTMLDivElement>();
  const { weeks, design_gust: design } = report;
  const count = weeks.length;
  const most = Math.min(Math.max(design * 1.45, ...weeks.map((w) => w.rare * 1.15), Math.min(report.headline.limit * 1.3, design * 2.2)), 46);
  const inner = Math.max(width - BOX.left - BOX.right, 50);
  const x = (index: number) => BOX.left + (index / count) * inner;
  const floor = HEIGHT - BOX.bottom;
  const y = (value: number) => floor - (Math.min(value, most) / most) * (floor - BOX.top);
  const stepped = (value: (w: (typeof weeks)[number]) => number) => weeks.map((w, i) => `${i ? "L" : "M"}${x(i).toFixed(1)} ${y(value(w)).toFixed(1)}H${x(i + 1).toFixed(1)}`).join("");
  const water = (value: (w: (typeof weeks)[number]) => number, swell: number) => {
    let d = `M${x(0)} ${floor}L${x(0)} ${y(value(weeks[0] ?? ({} as never)))}`;
    weeks.forEach((w, i) => {
      const next = weeks[i + 1] ?? w;
      const [a, b] = [y(value(w)), y(value(next))];
      const mid = (x(i) + x(i + 1)) / 2;
      d += `Q${(x(i) + mid) / 2} ${a - swell} ${mid} ${(a + b) / 2}T${x(i + 1)} ${b}`;
    });
    return `${d}L${x(count)} ${floor}Z`;
  };
  const worst = weeks.reduce((least, w, i) => (w.limit < (weeks[least]?.limit ?? 99) ? i : least), 0);
  const worstWeek = weeks[worst];
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onWeek(Math.min(Math.max(Math.floor(((event.clientX - box.left - BOX.left) / inner) * count), 0), count - 1));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 4, PageDown: -4 }[event.key];
    const to = event.key === "Home" ? 0 : event.key === "End" ? count - 1 : step === undefined ? null : week + step;
    if (to === null) return;
    event.preventDefault();
    onWeek(Math.min(Math.max(to, 0), count - 1));
  };
  const chosen = weeks[week];
  const free = worstWeek ? worstWeek.limit - design : 0;
  const shortest = Math.abs(free);
  const shownMost = most * units.factor;
  const pace = shownMost > 50 ? 20 : shownMost > 22 ? 10 : 5;
  const marks = Array.from({ length: Math.floor(shownMost / pace) }, (_, i) => ({ at: ((i + 1) * pace) / units.factor, text: `${(i + 1) * pace} ${units.unit}` }));
  const every = Math.max(Math.ceil(58 / (inner / count)), 1);
  return (
    <div
      ref={ref}
      className="ribbon tideslider"
      role="slider"
      tabIndex={0}
      aria-label="Week of the season"
      aria-valuemin={0}
      aria-valuemax={count - 1}
      aria-valuenow={week}
      aria-valuetext={chosen ? `${chosen.label}: holds to ${speed(chosen.limit)}` : ""}
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
        <svg width={width} height={HEIGHT} role="img" aria-label="Limit gust by week against the gusts of this garden" style={{ display: "block" }}>
          <defs>
            <pattern id="courses" width="34" height="14" patternUnits="userSpaceOnUse">
              <path d="M0 .5H34M0 7.5H34M10 .5V7.5M27 7.5V14.5" stroke="var(--stone2)" strokeWidth="1" fill="none" opacity=".7" />
            </pattern>
            <pattern id="flood" width="7" height="7" patternUnits="userSpaceOnUse">
              <path d="M0 3.5q1.75 -2.5 3.5 0t3.5 0" stroke="var(--ink)" strokeWidth="1" fill="none" opacity=".55" />
            </pattern>
            <clipPath id="above">
              <path d={`${stepped((w) => w.limit)}V0H${x(0)}Z`} />
            </clipPath>
          </defs>
          <path d={`${stepped((w) => w.limit)}V${floor}H${x(0)}Z`} fill="var(--stone)" />
          <path d={`${stepped((w) => w.limit)}V${floor}H${x(0)}Z`} fill="url(#courses)" />
          <path d={water((w) => w.rare, 3)} fill="var(--water2)" opacity={0.72} />
          <path d={water((w) => w.usual, 3)} fill="var(--water)" opacity={0.85} />
          <rect x={x(0)} y={y(design)} width={inner} height={floor - y(design)} fill="url(#flood)" clipPath="url(#above)" />
          <path d={`M${x(0)} ${y(design)}H${x(count)}`} stroke="var(--water)" strokeWidth={1.8} strokeDasharray="9 4" />
          <path d={stepped((w) => w.saturated)} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 3" fill="none" />
          <path d={stepped((w) => w.limit)} stroke="var(--ink)" strokeWidth={3.2} fill="none" />
          {worstWeek && (
            <g stroke="var(--weak)" fill="none">
              <path d={`M${(x(worst) + x(worst + 1)) / 2} ${y(design)}V${y(worstWeek.limit)}`} strokeWidth={3} />
              <path d={`M${(x(worst) + x(worst + 1)) / 2 - 6} ${y(design)}h12M${(x(worst) + x(worst + 1)) / 2 - 6} ${y(worstWeek.limit)}h12`} strokeWidth={2} />
              <text x={(x(worst) + x(worst + 1)) / 2 + (worst > count * 0.7 ? -10 : 10)} y={Math.min(y(design), y(worstWeek.limit)) - 6} fill="var(--weak)" stroke="none" fontSize={14} fontWeight={600} textAnchor={worst > count * 0.7 ? "end" : "start"}>
                {free >= 0 ? `${speed(shortest)} to spare` : `${speed(shortest)} short`}
              </text>
            </g>
          )}
          <text x={x(0) + 6} y={y(design) - 5} fontSize={12.5} fill="var(--ink)" className="narrow" style={{ paintOrder: "stroke" }} stroke="var(--paper)" strokeWidth={3}>
            {width > 620 ? `design gust ${speed(design)}, once in ten seasons` : `design ${speed(design)}`}
          </text>
          {marks.map((mark) => (
            <g key={mark.text}>
              <path d={`M${BOX.left - 5} ${y(mark.at)}h5`} stroke="var(--ink2)" />
              <text x={BOX.left - 8} y={y(mark.at) + 4} fontSize={12.5} textAnchor="end" fill="var(--ink2)" className="narrow">
                {mark.text}
              </text>
            </g>
          ))}
          {weeks.map((w, i) => (i % every === 0 ? (
            <text key={w.date} x={x(i) + 2} y={HEIGHT - 9} fontSize={12.5} fill="var(--ink2)" className="narrow">
              {w.short}
            </text>
          ) : null))}
          <g>
            <rect x={x(week)} y={BOX.top - 8} width={Math.max(inner / count, 3)} height={floor - BOX.top + 8} fill="var(--ink)" opacity={0.13} />
            <path d={`M${x(week + 0.5)} ${BOX.top - 8}V${floor + 5}`} stroke="var(--ink)" strokeWidth={2} />
            <rect x={x(week + 0.5) - 7} y={floor - 1} width={14} height={12} fill="var(--ink)" />
            <text x={Math.min(Math.max(x(week + 0.5), BOX.left + 120), width - 140)} y={16} textAnchor="middle" fontSize={14} fontWeight={600} fill="var(--ink)">
              {chosen ? `${chosen.label}: holds to ${speed(chosen.limit)}` : ""}
            </text>
          </g>
        </svg>
      )}
    </div>
  );
}
