import type { Schemas, StructureLine } from "../../api/client";
import type { Growing, Year } from "../../api/season";
import { across, dateAt, daysFrom, monthsOf, sayDay, type Scale } from "./days";
import { say } from "../../texts/say";

const LEAF = 26; // px of a full face
const GUSTS = 20;
const BARS = 12;
const TALLEST = 40; // m/s
const LONGEST = 120; // minutes of a week that fill a bar

interface Props {
  row: Schemas["YearRow"];
  line: StructureLine | undefined;
  scale: Scale;
  report: Year["report"];
  onMove: ((planting: string, day: number) => void) | null;
  onPut: () => void;
}

/** What grows on a structure through the year, what it holds to, and the time it takes. */
export function YearLane({ row, line, scale, report, onMove, onPut }: Props) {
  const week = scale.width / scale.weeks;
  const high = row.growing.length * (LEAF + 6) + GUSTS + BARS + 8;
  const gusts = row.growing.length * (LEAF + 6) + GUSTS;
  return (
    <svg width={scale.width} height={high} className="yearlane">
      {monthsOf(scale).map((month) => (
        <path key={month} d={`M${across(scale, month)} 0V${high}`} stroke="var(--hair)" strokeWidth={0.7} />
      ))}
      {[report.last_frost, report.first_frost].map((day, i) =>
        day && day >= scale.from ? (
          <path
            key={i}
            d={`M${across(scale, day)} 0V${high}`}
            stroke="var(--water)"
            strokeWidth={1}
            strokeDasharray="2 3"
          />
        ) : null,
      )}
      {line && <Gusts row={row} line={line} scale={scale} base={gusts} />}
      {row.growing.map((growing, i) => (
        <Crop
          key={growing.planting}
          growing={growing}
          scale={scale}
          base={(i + 1) * (LEAF + 6) - 3}
          onMove={onMove && ((day) => onMove(growing.planting, day))}
          onPut={onPut}
        />
      ))}
      {row.minutes.map((minutes, i) =>
        minutes > 0 ? (
          <rect
            key={i}
            x={i * week + 1}
            width={Math.max(week - 2, 1)}
            y={high - (BARS * Math.min(minutes, LONGEST)) / LONGEST}
            height={(BARS * Math.min(minutes, LONGEST)) / LONGEST}
            fill="var(--ink2)"
          >
            <title>
              {say("season.minInTheWeekOf", { minutes, from: sayDay(dateAt(scale.from, 7 * i)) })}
            </title>
          </rect>
        ) : null,
      )}
      <path d={`M${across(scale, report.today)} 0V${high}`} stroke="var(--ink)" strokeWidth={1.5} />
    </svg>
  );
}

/** The gust a structure holds to, over the gusts of its weeks. */
function Gusts({
  row,
  line,
  scale,
  base,
}: {
  row: Props["row"];
  line: StructureLine;
  scale: Scale;
  base: number;
}) {
  const planted = row.growing.map((growing) => daysFrom(scale.from, growing.planted));
  const begins = Math.floor(Math.min(...planted) / 7) * 7;
  const week = scale.width / scale.weeks;
  const y = (gust: number) => base - (GUSTS * Math.min(gust, TALLEST)) / TALLEST;
  const x = (i: number) => (begins / 7 + i) * week;
  const water = line.season.map(([, gust], i) => `L${x(i)} ${y(gust)}H${x(i + 1)}`).join("");
  const edge = line.season.map(([limit], i) => `${i ? "L" : "M"}${x(i)} ${y(limit)}H${x(i + 1)}`).join("");
  const over = line.season.flatMap(([limit, gust], i) => (gust > limit ? [i] : []));
  return (
    <g>
      <path d={`M${x(0)} ${base}${water}V${base}Z`} fill="var(--water2)" opacity={0.75} />
      {over.map((i) => (
        <rect
          key={i}
          x={x(i)}
          width={week}
          y={base - GUSTS}
          height={GUSTS}
          fill="var(--weak)"
          opacity={0.28}
        />
      ))}
      <path d={edge} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
    </g>
  );
}

interface CropProps {
  growing: Growing;
  scale: Scale;
  base: number;
  onMove: ((day: number) => void) | null;
  onPut: () => void;
}

/** What is said of a planting where its mark is pointed at. */
function told(growing: Growing): string {
  const windows = growing.window_words.join("; ");
  return [
    say("season.plantedFirstPickGone", {
      planted: sayDay(growing.planted),
      first: sayDay(growing.first),
      gone: sayDay(growing.gone),
    }),
    growing.frost && say("season.chanceOfAFrostAfterIt", { frost: growing.frost }),
    windows && say("season.itDoesWellPlanted", { windows }),
  ]
    .filter(Boolean)
    .join(" ");
}

/** One planting: in pots, as leaf, from its first pick on; its day of planting can be moved. */
function Crop({ growing, scale, base, onMove, onPut }: CropProps) {
  const week = scale.width / scale.weeks;
  const day = daysFrom(scale.from, growing.planted);
  const planted = across(scale, growing.planted);
  const gone = Math.min(across(scale, growing.gone), scale.width);
  const first = across(scale, growing.first);
  const leaves = growing.share
    .map((share, i) => `L${Math.min(Math.max((i + 0.5) * week, planted), gone)} ${base - LEAF * share}`)
    .join("");
  const keys: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: 7, PageUp: -7 };
  return (
    <g>
      {growing.windows.map(([from, to]) => (
        <path
          key={from}
          d={`M${Math.max(across(scale, from), 0)} ${base - LEAF - 1.5}H${Math.min(across(scale, to), scale.width)}`}
          stroke="var(--leaf2)"
          strokeWidth={2}
        />
      ))}
      {growing.sown && (
        <path
          d={`M${across(scale, growing.sown)} ${base}H${planted}`}
          stroke="var(--soil2)"
          strokeWidth={3}
          strokeDasharray="1 4"
        />
      )}
      <path d={`M${planted} ${base}${leaves}L${gone} ${base}Z`} fill="var(--leaf)" opacity={0.6} />
      {first < gone && <path d={`M${first} ${base}H${gone}`} stroke="var(--fruit)" strokeWidth={4} />}
      {onMove && (
        <g
          className="knob"
          role="slider"
          tabIndex={0}
          aria-label={say("season.planted", { name: growing.name })}
          aria-valuenow={day}
          aria-valuemin={0}
          aria-valuemax={7 * scale.weeks}
          aria-valuetext={sayDay(growing.planted)}
          onKeyDown={(event) => {
            const step = keys[event.key];
            if (step === undefined) return;
            event.preventDefault();
            onMove(day + step);
          }}
          onKeyUp={(event) => {
            if (event.key in keys) onPut();
          }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
          }}
          onPointerMove={(event) => {
            if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
            const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
            if (box) onMove(Math.round(((event.clientX - box.left) / scale.width) * 7 * scale.weeks));
          }}
          onPointerUp={onPut}
        >
          <rect x={planted - 16} y={base - LEAF} width={32} height={LEAF + 4} fill="transparent" />
          <circle cx={planted} cy={base} r={5.5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
          <title>{told(growing)}</title>
        </g>
      )}
    </g>
  );
}
