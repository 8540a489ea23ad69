import { useMemo, useState, type KeyboardEvent, type PointerEvent } from "react";

import type { Garden, Schemas, StructureLine } from "../../api/client";
import { BedShape } from "../../drawing/BedShape";
import { Earths } from "../../drawing/Earths";
import { FeatureShape } from "../../drawing/FeatureShape";
import { Margin } from "../../drawing/Margin";
import type { Flat } from "../../drawing/scale";
import { StructureShape } from "../../drawing/StructureShape";
import { useSize } from "../../drawing/useSize";
import { BedHandles, FeatureHandles, StructureHandles } from "./Handles";
import { Names } from "./Names";
import { Gaps, Guides, Shadows, WarningMarks } from "./Notes";
import { carried, Placing, type Kind } from "./placing";
import { useDragging, type Grip } from "./useDragging";
import { useNudging } from "./useNudging";
import type { PlanHand } from "./usePlan";
import { useViewport } from "./useViewport";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  plan: PlanHand;
  lines: Map<string, StructureLine>;
  chosen: string | null;
  onChoose: (key: string | null) => void;
  onOpen: (key: string) => void;
  shade: Schemas["ShadeOut"] | undefined;
  canEdit: boolean;
}

const ZOOM = 1.25;
const PAN = 60;

/** The garden in plan, to scale, north up: everything on it is moved, turned and stretched where it lies. */
export function Plan({ garden, plan, lines, chosen, onChoose, onOpen, shade, canEdit }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const { plot } = plan;
  // what the plan reaches to when it is opened; it stays while things are moved
  const [reach, setReach] = useState<{ low: Flat; high: Flat }>({
    low: garden.plot.low,
    high: garden.plot.high,
  });
  const isItem = (event: Event) => {
    const item =
      event.target instanceof Element ? event.target.closest("[data-item]")?.getAttribute("data-item") : null;
    const touch = "pointerType" in event && event.pointerType === "touch";
    return canEdit && item !== null && item !== undefined && (!touch || item === "handle" || item === chosen);
  };
  const port = useViewport(ref, reach.low, reach.high, width, height, isItem);
  const { perMetre, middle } = port.view;
  const scale = useMemo(
    () => ({
      perMetre,
      at: ([x, y]: Flat): [number, number] => [
        width / 2 + (x - middle[0]) * perMetre,
        height / 2 - (y - middle[1]) * perMetre,
      ],
    }),
    [perMetre, middle, width, height],
  );
  const toPlan = (clientX: number, clientY: number): Flat => {
    const box = ref.current?.getBoundingClientRect();
    return [
      middle[0] + (clientX - (box?.left ?? 0) - width / 2) / perMetre,
      middle[1] - (clientY - (box?.top ?? 0) - height / 2) / perMetre,
    ];
  };
  const placing = useMemo(() => new Placing(garden, plot, plan.wanted), [garden, plot, plan.wanted]);
  const drag = useDragging(garden, plot, placing, plan, toPlan, perMetre);
  const nudge = useNudging(garden, placing, plan);

  const grip = (kind: Kind, key: string) => (event: PointerEvent, part: Grip) => {
    if (event.button === 0) drag.begin(event, kind, key, part);
  };
  const item = (kind: Kind, key: string, name: string) => ({
    "data-item": key,
    role: "button",
    tabIndex: 0,
    "aria-label": name,
    "aria-pressed": chosen === key,
    className: "planitem",
    onPointerDown: (event: PointerEvent) => {
      if (event.button !== 0) return;
      // a finger on what is not chosen yet may be about to move the plan: it chooses when it is lifted
      if (event.pointerType !== "touch") onChoose(key);
      if (canEdit && (event.pointerType !== "touch" || chosen === key))
        drag.begin(event, kind, key, { part: "whole" });
    },
    onClick: () => onChoose(key),
    onDoubleClick: () => onOpen(key),
    onFocus: (event: React.FocusEvent) => {
      if (event.currentTarget.matches(":focus-visible")) onChoose(key);
    },
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === "Enter") onOpen(key);
      else if (!canEdit || !nudge.onKey(event, kind, key)) return;
      event.preventDefault();
      event.stopPropagation();
    },
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const way = { ArrowLeft: [PAN, 0], ArrowRight: [-PAN, 0], ArrowUp: [0, PAN], ArrowDown: [0, -PAN] }[
      event.key
    ];
    if (event.key === "+" || event.key === "=") port.zoomAt(ZOOM);
    else if (event.key === "-") port.zoomAt(1 / ZOOM);
    else if (event.key === "0") port.fit();
    else if (event.key === "Escape") onChoose(null);
    else if (way) port.panBy(way[0] ?? 0, way[1] ?? 0);
    else return;
    event.preventDefault();
  };
  const bedMark = plot.beds.find((bed) => bed.key === chosen);
  const rowMark = plot.structures.find((row) => row.key === chosen);
  const lineMark = plot.features.find((feature) => feature.key === chosen);
  const corners = bedMark?.outline ?? rowMark?.row ?? lineMark?.points;
  const [looked, setLooked] = useState<string | null>(null);
  if (corners && width > 0 && looked !== chosen) {
    // what is chosen comes in sight once, also where it was just added; after that the person looks around
    setLooked(chosen);
    const spots = corners.map((corner) => scale.at(corner));
    if (spots.some(([x, y]) => x < 0 || y < 0 || x > width || y > height)) {
      setReach({ low: plot.low, high: plot.high });
      port.fit();
    }
  }
  const paths = plot.features.filter((feature) => feature.kind === "path");
  const others = plot.features.filter((feature) => feature.kind !== "path");
  const words = (key: string) => lines.get(key);
  return (
    // a drawing that is panned and zoomed by keys
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      className="plan"
      ref={ref}
      onKeyDown={onKeyDown}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      role="application"
      aria-label={say("plot.planOfTheGardenArrowKeys")}
    >
      {width > 0 && (
        <svg
          width={width}
          height={height}
          onPointerMove={drag.move}
          onPointerUp={drag.end}
          onPointerCancel={drag.cancel}
          onClick={(event) => event.target === event.currentTarget && onChoose(null)}
        >
          <Earths />
          <Margin
            scale={scale}
            width={width}
            height={height}
            middle={middle}
            imperial={garden.units === "imperial"}
          />
          {paths.map((feature) => (
            <g key={feature.key} {...item("feature", feature.key, say("plot.path", { name: feature.name }))}>
              <FeatureShape
                feature={placing.feature(feature)}
                scale={scale}
                chosen={chosen === feature.key}
              />
            </g>
          ))}
          {plot.beds.map((bed) => (
            <g
              key={bed.key}
              {...item("bed", bed.key, say("plot.bed2", { name: bed.name }))}
              transform={carried(bed, placing.bed(bed), scale.at)}
            >
              <BedShape bed={bed} scale={scale} chosen={chosen === bed.key} />
            </g>
          ))}
          {others.map((feature) => (
            <g
              key={feature.key}
              {...item("feature", feature.key, `${feature.kind.replace("-", " ")} ${feature.name}`)}
            >
              <FeatureShape
                feature={placing.feature(feature)}
                scale={scale}
                chosen={chosen === feature.key}
              />
            </g>
          ))}
          {shade && <Shadows shade={shade} scale={scale} />}
          {plot.structures.map((row) => (
            <g
              key={row.key}
              {...item(
                "structure",
                row.key,
                `${row.name}${words(row.key) ? `, ${words(row.key)?.words ?? ""}, ${words(row.key)?.limit ?? ""}` : ""}`,
              )}
              transform={carried(row, placing.structure(row), scale.at)}
            >
              <path
                d={`M${scale.at(row.row[0]).join(" ")}L${scale.at(row.row[1]).join(" ")}`}
                stroke="transparent"
                strokeWidth={14}
              />
              <StructureShape structure={row} scale={scale} chosen={chosen === row.key} />
            </g>
          ))}
          <Names
            plot={plot}
            placing={placing}
            lines={lines}
            warnings={plan.warnings}
            scale={scale}
            chosen={chosen}
            shade={shade}
            busy={plan.hand !== null}
          />
          <Guides guides={drag.guides} scale={scale} />
          <Gaps gaps={plan.gaps} scale={scale} />
          <WarningMarks warnings={plan.warnings} scale={scale} chosen={chosen} />
          {canEdit && bedMark && !plan.hand && (
            <BedHandles bed={bedMark} scale={scale} onGrip={grip("bed", bedMark.key)} />
          )}
          {canEdit && rowMark && !plan.hand && (
            <StructureHandles
              structure={rowMark}
              length={placing.row(rowMark.key)?.length ?? 1}
              scale={scale}
              onGrip={grip("structure", rowMark.key)}
            />
          )}
          {canEdit && lineMark && !plan.hand && (
            <FeatureHandles
              feature={placing.feature(lineMark)}
              scale={scale}
              onGrip={grip("feature", lineMark.key)}
            />
          )}
        </svg>
      )}
      <div className="zoom" role="group" aria-label={say("plot.zoom2")}>
        <button
          type="button"
          className="tool"
          onClick={() => port.zoomAt(ZOOM)}
          title="+"
          aria-label={say("plot.closer")}
        >
          +
        </button>
        <button
          type="button"
          className="tool"
          onClick={() => port.zoomAt(1 / ZOOM)}
          title="−"
          aria-label={say("plot.further")}
        >
          −
        </button>
        <button type="button" className="tool" onClick={port.fit} title="0" aria-label={say("plot.showAll")}>
          {say("plot.all")}
        </button>
      </div>
    </div>
  );
}
