import type { PointerEvent } from "react";

import type { BedMark, FeatureMark, StructureMark } from "../../api/client";
import { beside } from "../../drawing/plan";
import type { Flat, Scale } from "../../drawing/scale";
import type { Grip } from "./useDragging";
import { say } from "../../texts/say";

interface Props {
  scale: Scale;
  onGrip: (event: PointerEvent, grip: Grip) => void;
}

const ARM = 30; // pixels from a thing's end to its turning handle
const OFF = 9; // pixels from a thing's edge to its handles, so that a small thing can still be taken itself
const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

function Knob({
  x,
  y,
  round = false,
  label,
  onDown,
}: {
  x: number;
  y: number;
  round?: boolean;
  label: string;
  onDown: (event: PointerEvent) => void;
}) {
  return (
    <g data-item="handle" className="knob" onPointerDown={onDown}>
      <title>{label}</title>
      <circle cx={x} cy={y} r={12} fill="transparent" />
      {round ? (
        <circle cx={x} cy={y} r={5.5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      ) : (
        <rect
          x={x - 5}
          y={y - 5}
          width={10}
          height={10}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
    </g>
  );
}

/** Where a chosen bed is taken to stretch and to turn it. */
export function BedHandles({ bed, scale, onGrip }: Props & { bed: BedMark }) {
  const off = OFF / scale.perMetre;
  const [half, wide] = [bed.length / 2 + bed.board + off, bed.width / 2 + bed.board + off];
  const spot = (along: number, left: number) =>
    scale.at(beside(bed.middle, bed.bearing, along * half, left * wide));
  const arm = scale.at(beside(bed.middle, bed.bearing, half + ARM / scale.perMetre, 0));
  const [x, y] = spot(1, 0);
  return (
    <g>
      <path d={`M${x} ${y}L${arm[0]} ${arm[1]}`} stroke="var(--ink)" strokeWidth={1.4} />
      {SIDES.map(([along, left]) => {
        const [kx, ky] = spot(along, left);
        return (
          <Knob
            key={`${along}${left}`}
            x={kx}
            y={ky}
            label={along ? say("plot.stretchTheLength") : say("plot.stretchTheWidth")}
            onDown={(event) => onGrip(event, { part: "side", along, left })}
          />
        );
      })}
      <Knob
        x={arm[0]}
        y={arm[1]}
        round
        label={say("plot.turn2")}
        onDown={(event) => onGrip(event, { part: "turn" })}
      />
    </g>
  );
}

/** Where a chosen structure is taken to lengthen and to turn it. */
export function StructureHandles({
  structure,
  length,
  scale,
  onGrip,
}: Props & { structure: StructureMark; length: number }) {
  const end = (last: boolean) =>
    scale.at(
      beside(structure.middle, structure.bearing, (last ? 1 : -1) * (length / 2 + OFF / scale.perMetre), 0),
    );
  const arm = scale.at(beside(structure.middle, structure.bearing, length / 2 + ARM / scale.perMetre, 0));
  const [x, y] = end(true);
  return (
    <g>
      <path d={`M${x} ${y}L${arm[0]} ${arm[1]}`} stroke="var(--ink)" strokeWidth={1.4} />
      {structure.stretch &&
        [false, true].map((last) => {
          const [kx, ky] = end(last);
          return (
            <Knob
              key={String(last)}
              x={kx}
              y={ky}
              label={say("plot.lengthen")}
              onDown={(event) => onGrip(event, { part: "end", last })}
            />
          );
        })}
      <Knob
        x={arm[0]}
        y={arm[1]}
        round
        label={say("plot.turn2")}
        onDown={(event) => onGrip(event, { part: "turn" })}
      />
    </g>
  );
}

/** The corners of a chosen line. */
export function FeatureHandles({ feature, scale, onGrip }: Props & { feature: FeatureMark }) {
  if (feature.round) return null;
  return (
    <g>
      {feature.points.map((point: Flat, index) => {
        const [x, y] = scale.at(point);
        return (
          <Knob
            key={index}
            x={x}
            y={y}
            label={say("plot.moveThisCorner")}
            onDown={(event) => onGrip(event, { part: "corner", index })}
          />
        );
      })}
    </g>
  );
}
