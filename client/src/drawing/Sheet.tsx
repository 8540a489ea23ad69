import { useMemo, useState, type ReactNode } from "react";

import type { Report, View } from "../api/client";
import { Arrows } from "./Arrows";
import { Foliage } from "./Foliage";
import { Ground } from "./Ground";
import { Marks } from "./Marks";
import { measurePath, measureSpot } from "./measures";
import { sheetWithNotes, worthCloser } from "./notes";
import type { Flat } from "./scale";
import { useSize } from "./useSize";
import { WindArrow } from "./WindArrow";
import { say } from "../texts/say";

type Name = View["name"];
type Measure = View["measures"][number];

interface Props {
  report: Report;
  week: number;
  wind: 0 | 1 | 2;
  windText: string;
  lit: ReadonlySet<string>;
  weak: ReadonlySet<string>;
  short?: boolean;
  arrows?: readonly string[];
  onPoint?: (member: string | null) => void;
  onOpen?: (member: string) => void;
  editor?: (measure: Measure, close: () => void) => ReactNode;
  notes?: readonly string[];
  /** How notes look; where there is no room for them on the sheet they are not drawn. */
  written?: ReactNode;
}

const NONE: readonly string[] = [];
const NAMES: readonly Name[] = ["elevation", "plan", "end"];
const TITLES: Record<Name, string> = {
  elevation: say("drawing.fromTheSide"),
  plan: say("drawing.fromAbove"),
  end: say("drawing.fromTheEnd"),
};

/** The working drawing: side, end and plan on one sheet to one scale, with measures that can be touched. */
export function Sheet({
  report,
  week,
  wind,
  windText,
  lit,
  weak,
  short = false,
  arrows = [],
  onPoint,
  onOpen,
  editor,
  notes = NONE,
  written,
}: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [open, setOpen] = useState<string | null>(null);
  const [closer, setCloser] = useState(false);
  const views = useMemo(
    () => Object.fromEntries(report.views.map((view) => [view.name, view])) as Record<Name, View>,
    [report.views],
  );
  const upright = views.elevation.plants.every((plant) => plant.way.length < 2);
  const tallest = upright ? Math.max(...report.foliage.flatMap((foliage) => foliage.top)) : 0;
  const long = useMemo(() => worthCloser(views, tallest, width, height), [views, tallest, width, height]);
  const { layout, place } = useMemo(
    () => sheetWithNotes(views, tallest, width, height, notes, closer && long),
    [views, tallest, width, height, notes, closer, long],
  );
  const scales = useMemo(
    () =>
      Object.fromEntries(
        NAMES.map((name) => [name, { perMetre: layout.perMetre, at: layout.at[name] }]),
      ) as Record<Name, { perMetre: number; at: (p: Flat) => [number, number] }>,
    [layout],
  );
  const lean = (report.weeks[week]?.lean[wind] ?? 0) * report.exaggeration;
  const sag = report.weeks[week]?.sag[wind] ?? 0;
  const weakest = report.weeks[week]?.weakest ?? "";
  const tall = views.end.high[1];
  const still = (point: Flat): Flat => point;
  const bend = (point: Flat): Flat =>
    point[1] > 0
      ? [point[0] + lean * (0.35 * (point[1] / tall) + 0.65 * (point[1] / tall) ** 2), point[1]]
      : point;
  const titleAt = (name: Name): Flat => {
    const box = layout.box[name];
    if (name === "plan") return [box.x + box.width + 16, box.y + 12];
    return [name === "end" ? box.x + box.width : box.x, Math.max(layout.box.elevation.y - 48, 18)];
  };
  const within = (x: number, half: number) => Math.min(Math.max(x, half), layout.width - half);
  const measures = NAMES.flatMap((name) =>
    views[name].measures.map((measure) => ({ measure, at: layout.at[name] })),
  );
  return (
    <div className="sheet" ref={ref}>
      {long && (
        <div className="closer">
          <button type="button" className="plain" aria-pressed={closer} onClick={() => setCloser(!closer)}>
            {closer ? say("drawing.theWholeRow") : say("drawing.closer")}
          </button>
        </div>
      )}
      {width > 0 && (
        <div className="paper" style={{ width: layout.width, height: layout.height }}>
          <svg
            width={layout.width}
            height={layout.height}
            role="img"
            aria-label={say("drawing.theSupportFromTheSideFrom")}
          >
            <Ground views={views} layout={layout} />
            {NAMES.map((name) => (
              <g key={name}>
                <Marks
                  view={views[name]}
                  scale={scales[name]}
                  lit={lit}
                  weak={weak}
                  short={short}
                  sag={sag}
                  bend={name === "end" ? bend : still}
                  onPoint={onPoint}
                  onOpen={onOpen}
                />
                <Foliage
                  view={views[name]}
                  foliage={report.foliage}
                  week={week}
                  scale={scales[name]}
                  lean={lean}
                />
                <Arrows
                  report={report}
                  view={name}
                  scale={scales[name]}
                  shown={arrows}
                  short={short}
                  weakest={weakest}
                  edge={layout.width}
                />
                <text
                  x={titleAt(name)[0]}
                  y={titleAt(name)[1]}
                  textAnchor={name === "end" ? "end" : "start"}
                  className="caption"
                >
                  {TITLES[name]}
                </text>
              </g>
            ))}
            {measures.map(({ measure, at }) => (
              <path
                key={measure.option}
                d={measurePath(measure, at)}
                stroke="var(--ink)"
                strokeWidth={0.9}
                fill="none"
              />
            ))}
            {wind !== 0 && !layout.narrow && (
              <WindArrow
                x={layout.box.end.x}
                y={layout.at.end([0, tall * 0.62])[1]}
                strength={wind}
                text={windText}
              />
            )}
          </svg>
          {place && (
            <div
              className="sheetnotes"
              style={{ left: place.x, top: place.y, width: place.width, columnCount: place.columns }}
            >
              {written}
            </div>
          )}
          {measures.map(({ measure, at }) => {
            const [x, y] = measureSpot(measure, at);
            if (!editor)
              return (
                <span
                  key={measure.option}
                  className="measure still"
                  style={{ left: within(x, 8 + 3.6 * measure.text.length), top: y }}
                >
                  {measure.text}
                </span>
              );
            return open === measure.option ? (
              <div
                key={measure.option}
                className="measureedit"
                style={{ left: within(x, 84), top: Math.max(y, 22) }}
              >
                {editor(measure, () => setOpen(null))}
              </div>
            ) : (
              <button
                key={measure.option}
                type="button"
                className="measure"
                style={{ left: within(x, 8 + 3.6 * measure.text.length), top: y }}
                onClick={() => setOpen(measure.option)}
                aria-label={say("drawing.change", { label: measure.label, text: measure.text })}
              >
                {measure.text}
              </button>
            );
          })}
        </div>
      )}
    </div>
  );
}
