import { useMemo, useState, type ReactNode } from "react";

import type { Report, View } from "../api/client";
import { Ground } from "./Ground";
import { leavesOf } from "./leaves";
import { Marks } from "./Marks";
import { scaleOf, type Flat, type Margins } from "./scale";
import { useSize } from "./useSize";

interface Props {
  view: View;
  report: Report;
  week: number;
  wind: 0 | 1 | 2;
  title: string;
  room: Margins;
  lit: ReadonlySet<string>;
  weak: ReadonlySet<string>;
  onPoint: (member: string | null) => void;
  onOpen: (member: string) => void;
  editor?: ((measure: View["measures"][number], close: () => void) => ReactNode) | undefined;
}

/** One drawing on the bench: ground, leaves, members, and measures that can be touched. */
export function Sheet({ view, report, week, wind, title, room, lit, weak, onPoint, onOpen, editor }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [open, setOpen] = useState<string | null>(null);
  const scale = useMemo(() => {
    const tight = width < 500 ? 0.68 : 1; // a phone has no room to waste round the drawing
    return scaleOf(view, width, height, { ...room, left: room.left * tight, right: room.right * tight });
  }, [view, width, height, room]);
  const lean = (report.weeks[week]?.lean[wind] ?? 0) * report.exaggeration;
  const tall = view.high[1];
  const bend = (point: Flat): Flat => (view.name === "end" && point[1] > 0 ? [point[0] + lean * (0.35 * (point[1] / tall) + 0.65 * (point[1] / tall) ** 2), point[1]] : point);
  const plants = useMemo(
    () =>
      report.foliage.map((foliage, index) => {
        const feet = view.plants.filter((plant) => plant.planting === index).map((plant) => plant.at);
        const gap = feet.length > 1 && view.name === "elevation" ? Math.abs((feet[1]?.[0] ?? 0) - (feet[0]?.[0] ?? 0)) : foliage.depth;
        const shown: Flat[] = view.name === "end" ? feet.slice(0, 1) : feet;
        return { feet: shown, leaves: leavesOf(foliage, shown, week, scale, view.name === "elevation" ? Math.max(gap, 0.08) : foliage.depth * 0.8), index };
      }),
    [report.foliage, view, week, scale],
  );
  return (
    <div className="sheet" ref={ref}>
      {width > 0 && (
        <svg role="img" aria-label={title}>
          <Ground view={view} scale={scale} width={width} height={height} />
          <Marks view={view} scale={scale} lit={lit} weak={weak} bend={bend} onPoint={onPoint} onOpen={onOpen} />
          {plants.map(({ feet, leaves, index }) =>
            view.name === "plan" ? (
              <g key={index}>
                {feet.map((foot) => {
                  const [x, y] = scale.at(foot);
                  const spread = (report.foliage[index]?.cover[week] ?? 0) * (report.foliage[index]?.depth ?? 0.3) * 0.4 * scale.perMetre;
                  return <circle key={`${foot[0]}-${foot[1]}`} cx={x} cy={y} r={Math.max(spread, 2)} fill="var(--leaf)" opacity={0.55} stroke="var(--leaf2)" />;
                })}
              </g>
            ) : (
              <g key={index} pointerEvents="none" transform={view.name === "end" ? `translate(${(lean * scale.perMetre * 0.35).toFixed(1)} 0)` : undefined}>
                <path d={leaves.stems} stroke="var(--leaf2)" strokeWidth={1.6} fill="none" />
                <path d={leaves.dark} fill="var(--leaf)" opacity={0.62} />
                <path d={leaves.light} fill="var(--leaf2)" opacity={0.6} />
                {leaves.fruit.map((fruit, n) => (
                  <circle key={n} cx={fruit.at[0]} cy={fruit.at[1]} r={fruit.r} fill="var(--fruit)" stroke="var(--ink)" strokeWidth={0.5} />
                ))}
              </g>
            ),
          )}
          {editor && view.measures.map((m) => <MeasureLine key={m.option} measure={m} at={scale.at} />)}
          <text x={12} y={20} fontSize={13} fill="var(--ink2)" className="narrow">
            {title}
          </text>
        </svg>
      )}
      {width > 0 &&
        editor &&
        view.measures.map((measure) => {
          const [x, y] = spot(measure, scale.at);
          const left = Math.min(Math.max(x, 44), width - 44);
          return open === measure.option ? (
            <div key={measure.option} className="measureedit" style={{ left: Math.min(Math.max(left, 80), width - 80), top: Math.max(y, 22) }}>
              {editor(measure, () => setOpen(null))}
            </div>
          ) : (
            <button key={measure.option} type="button" className="measure" style={{ left, top: y }} onClick={() => setOpen(measure.option)} aria-label={`Change ${measure.option.split(".").pop()?.replace("_", " ") ?? ""}: ${measure.text}`}>
              {measure.text}
            </button>
          );
        })}
    </div>
  );
}

const AWAY = 46;

/** Where a measure's line runs: beside what it measures, upright or level. */
function ends(measure: View["measures"][number], at: (p: Flat) => [number, number]): [number, number, number, number] {
  const [a, b] = [at(measure.start), at(measure.end)];
  const away = measure.offset * AWAY;
  const upright = Math.abs(a[0] - b[0]) < 1;
  return upright ? [a[0] + away, a[1], b[0] + away, b[1]] : [a[0], a[1] - away, b[0], b[1] - away];
}

function spot(measure: View["measures"][number], at: (p: Flat) => [number, number]): [number, number] {
  const [x0, y0, x1, y1] = ends(measure, at);
  return [(x0 + x1) / 2, (y0 + y1) / 2];
}

function MeasureLine({ measure, at }: { measure: View["measures"][number]; at: (p: Flat) => [number, number] }) {
  const [x0, y0, x1, y1] = ends(measure, at);
  const [a, b] = [at(measure.start), at(measure.end)];
  const tick = (x: number, y: number) => `M${x - 4} ${y + 4}l8 -8`;
  return <path d={`M${a[0]} ${a[1]}L${x0} ${y0}L${x1} ${y1}L${b[0]} ${b[1]}${tick(x0, y0)}${tick(x1, y1)}`} stroke="var(--ink)" strokeWidth={0.9} fill="none" />;
}
