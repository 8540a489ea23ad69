import type { BedMark, FeatureMark, Garden, Schemas, StructureLine, StructureMark } from "../../api/client";
import { Labels, type Spot } from "../../drawing/labels";
import { LinkGlyph } from "../../drawing/LinkGlyph";
import { beside, inFrame } from "../../drawing/plan";
import type { Flat, Scale } from "../../drawing/scale";
import type { Placing } from "./placing";

const LETTER = 6.4; // pixels a letter takes
const HIGH = 14; // and a line
const GLYPH = 0.56;
const LINK = 22; // pixels of a link before its gust
const PAST_HANDLE = 34;
const FLAG: [number, number] = [18, 24];
const LEGIBLE = 13; // pixels a metre below which only marks are drawn, no words

interface Props {
  plot: Garden["plot"];
  placing: Placing;
  lines: Map<string, StructureLine>;
  warnings: readonly Schemas["Warned"][];
  scale: Scale;
  chosen: string | null;
  shade: Schemas["ShadeOut"] | undefined;
  busy: boolean;
}

interface Named extends Spot {
  key: string;
  text: string;
  ink: boolean;
}

/**
 * Names of beds and features, and each structure's link with the gust it holds to; what finds no place of its
 * own is left out.
 */
export function Names({ plot, placing, lines, warnings, scale, chosen, shade, busy }: Props) {
  const labels = new Labels();
  for (const warning of warnings) {
    const [x, y] = scale.at(warning.at);
    labels.keep({ x: x + 4, y: y - 11 }, ...FLAG);
  }
  for (const bed of plot.beds) {
    const { middle, bearing } = placing.bed(bed);
    const [x, y] = scale.at(middle);
    labels.avoid({ x, y, turn: bearing - 90 }, bed.length * scale.perMetre, bed.width * scale.perMetre);
  }
  for (const row of plot.structures) {
    const { middle, bearing } = placing.structure(row);
    const [half, wide] = reachOf(row);
    const [x, y] = scale.at(middle);
    labels.avoid({ x, y, turn: bearing - 90 }, 2 * half * scale.perMetre, 2 * wide * scale.perMetre);
  }
  const inHand = (row: StructureMark) => chosen === row.key || chosen === row.bed;
  const tags = [...plot.structures]
    .sort((a, b) => Number(inHand(b)) - Number(inHand(a))) // what is in hand is written first
    .flatMap((row) => {
      const line = lines.get(row.key);
      if (!line?.state || (inHand(row) && busy)) return []; // distances are written here now
      const { state } = line;
      const place = (long: number) => {
        const spots = besideRow(row, placing, scale, long, inHand(row) ? PAST_HANDLE : 0);
        return { long, found: labels.place(spots, long, HIGH), first: spots[0] ?? { x: 0, y: 0 } };
      };
      const wordy = scale.perMetre > LEGIBLE || chosen === row.key;
      const worded = wordy ? place(LINK + line.limit.length * LETTER) : null;
      // without its gust, where that finds no place
      const { long, found, first } = worded?.found ? worded : place(LINK);
      return [{ row, line, state, at: found ?? first, shown: Boolean(worded?.found), long }];
    });
  const sun = new Map(shade?.beds.map((bed) => [bed.bed, bed.text]));
  const names: Named[] = [];
  for (const bed of plot.beds) {
    const text = sun.get(bed.key) ?? bed.name;
    const own = chosen === bed.key;
    if (own && !sun.size) continue; // its name stands beside the plan, its handles here
    if (
      !own &&
      (Math.max(bed.length, bed.width) * scale.perMetre < text.length * LETTER * 0.9 ||
        Math.min(bed.length, bed.width) * scale.perMetre < 8)
    )
      continue;
    const spot = labels.place(atBed(bed, placing, scale, own ? 26 : 9), text.length * LETTER, HIGH);
    if (spot) names.push({ ...spot, key: bed.key, text, ink: own });
  }
  for (const mark of plot.features) {
    const own = chosen === mark.key;
    const long = mark.name.length * LETTER;
    const spot =
      own || scale.perMetre >= LEGIBLE
        ? labels.place(atFeature(placing.feature(mark), scale, long, own), long, HIGH)
        : null;
    if (spot) names.push({ ...spot, key: mark.key, text: mark.name, ink: false });
  }
  return (
    <g pointerEvents="none" className="plannames">
      {names.map(({ key, text, ink, x, y, turn = 0 }) => (
        <text
          key={key}
          transform={`translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(${turn.toFixed(1)})`}
          y={4}
          textAnchor="middle"
          className={`caption${ink ? " ink" : ""}`}
        >
          {text}
        </text>
      ))}
      {tags.map(({ row, line, state, at, shown, long }) => (
        <g key={row.key} transform={`translate(${(at.x - long / 2 + 8).toFixed(1)} ${at.y.toFixed(1)})`}>
          <g transform={`scale(${GLYPH}) translate(-12 -20)`}>
            <path
              d="M6 13a6 6 0 0 1 12 0v14a6 6 0 0 1-12 0z"
              stroke="var(--paper)"
              strokeWidth={9}
              fill="var(--paper)"
            />
            <LinkGlyph state={state} />
          </g>
          {shown && (
            <text x={8} y={5} className="caption ink" style={{ fontWeight: 600 }}>
              {line.limit}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

/** How far a structure reaches from its middle, along its row and across it. [m] */
function reachOf(row: StructureMark): [number, number] {
  const reach = row.strokes
    .flatMap((stroke) => stroke.points)
    .map((point) => inFrame(point, row.middle, row.bearing));
  return [
    Math.max(...reach.map(([along]) => Math.abs(along))),
    Math.max(...reach.map(([, across]) => Math.abs(across))),
  ];
}

/** Where a structure's gust may be written: past either end of its row, and beside its middle. */
function besideRow(row: StructureMark, placing: Placing, scale: Scale, long: number, off: number): Spot[] {
  const { middle, bearing } = placing.structure(row);
  const [half, reach] = reachOf(row);
  const wide = reach * scale.perMetre;
  const upright = Math.abs(Math.cos((bearing * Math.PI) / 180)) > 0.7;
  const at = (sign: number): Flat => scale.at(beside(middle, bearing, sign * half, 0));
  const [a, b] = [at(-1), at(1)];
  const [first, last] = (upright ? a[1] < b[1] : a[0] > b[0]) ? [a, b] : [b, a];
  const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  if (upright)
    return [
      { x: first[0], y: first[1] - 20 - off },
      { x: last[0], y: last[1] + 20 + off },
      { x: x + wide + 12 + long / 2 + off, y },
      { x: x - wide - 12 - long / 2 - off, y },
    ];
  return [
    { x: first[0] + 8 + long / 2 + off, y: first[1] },
    { x: last[0] - 8 - long / 2 - off, y: last[1] },
    ...[0, 0.3, -0.3].flatMap((part) =>
      [-1, 1].map((side) => ({ x: x + part * (b[0] - a[0]), y: y + side * (wide + 19 + off) })),
    ),
  ];
}

/** Where a bed's name may be written: along its lower or its upper edge, in the middle or towards an end. */
function atBed(bed: BedMark, placing: Placing, scale: Scale, off: number): Spot[] {
  const place = placing.bed(bed);
  const turn = level(place.bearing - 90);
  const below = Math.cos(((turn - (place.bearing - 90)) * Math.PI) / 180) > 0 ? -1 : 1;
  const away = bed.width / 2 + bed.board + off / scale.perMetre;
  return [below, -below].flatMap((side) =>
    [0, -0.25, 0.25].map((part) =>
      spot(scale.at(beside(place.middle, place.bearing, part * bed.length, side * away)), turn),
    ),
  );
}

/** Where a feature's name may be written: beside a post or stump, in a path, along a line. */
function atFeature(feature: FeatureMark, scale: Scale, long: number, own: boolean): Spot[] {
  const [a, b] = [feature.points[0], feature.points[1] ?? feature.points[0]];
  if (!a || !b) return [];
  const [[x0, y0], [x1, y1]] = [scale.at(a), scale.at(b)];
  if (feature.round) return [1, -1].map((sign) => ({ x: x0 + sign * (12 + long / 2), y: y0 }));
  if (!own && Math.hypot(x1 - x0, y1 - y0) < long + 20) return [];
  const turn = level((Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI);
  const away =
    feature.kind === "path" ? [0] : [-1, 1].map((sign) => sign * (9 + (feature.width / 2) * scale.perMetre));
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const parts = feature.kind === "path" ? [0.5, 0.3, 0.7, 0.15, 0.85] : [0.86, 0.5, 0.14, 0.3, 0.7];
  return away.flatMap((by) =>
    parts.map((part) => ({ x: x0 + (x1 - x0) * part - s * by, y: y0 + (y1 - y0) * part + c * by, turn })),
  );
}

const spot = ([x, y]: Flat, turn: number): Spot => ({ x, y, turn });

/** An angle at which text can be read: not upside down. */
function level(degrees: number): number {
  const angle = ((degrees % 360) + 360) % 360;
  return angle > 90 && angle <= 270 ? angle - 180 : angle > 270 ? angle - 360 : angle;
}
