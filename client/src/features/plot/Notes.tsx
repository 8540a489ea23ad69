import type { Garden, Schemas, StructureLine } from "../../api/client";
import { pathOf } from "../../drawing/BedShape";
import { LinkGlyph } from "../../drawing/LinkGlyph";
import { beside, inFrame } from "../../drawing/plan";
import type { Flat, Scale } from "../../drawing/scale";
import type { Guide } from "../../drawing/snap";
import type { Placing } from "./placing";

const ROOM = 7; // pixels a letter takes
const GLYPH = 0.56;
const ASIDE = 0.86; // of a line's length, where its name is less likely to meet a bed's
const PAST_HANDLE = 34;
const WORDS = 58; // pixels that a link with its gust takes
const LEGIBLE = 13; // pixels a metre below which only marks are drawn, no words

interface NamesProps {
  plot: Garden["plot"];
  placing: Placing;
  lines: Map<string, StructureLine>;
  scale: Scale;
  chosen: string | null;
  shade: Schemas["ShadeOut"] | undefined;
  width: number;
  busy: boolean;
}

/** Names of beds and features, and each structure's link with the gust it holds to. */
export function Names({ plot, placing, lines, scale, chosen, shade, width, busy }: NamesProps) {
  const sun = new Map(shade?.beds.map((bed) => [bed.bed, bed.text]));
  const written: Flat[] = [];
  const inHand = (row: { key: string; bed: string }) => chosen === row.key || chosen === row.bed;
  const spots = [...plot.structures]
    .sort((a, b) => Number(inHand(b)) - Number(inHand(a))) // what is in hand is written first; what would lie over it is left out
    .flatMap((row) => {
      const line = lines.get(row.key);
      if (!line || (inHand(row) && busy)) return []; // distances are written here now
      const place = placing.structure(row);
      const half = Math.max(...row.strokes.flatMap((stroke) => stroke.points).map((point) => Math.abs(inFrame(point, row.middle, row.bearing)[0])));
      const upright = Math.abs(Math.cos((place.bearing * Math.PI) / 180)) > 0.7;
      const ends = [-1, 1].map((sign) => scale.at(beside(place.middle, place.bearing, sign * half, 0)));
      const [near = [0, 0], far = near] = ends.sort((p, q) => (upright ? p[1] - q[1] : q[0] - p[0]));
      const off = inHand(row) ? PAST_HANDLE : 0;
      const places: Flat[] = upright ? [[near[0] - 16, near[1] - 17 - off], [far[0] - 16, far[1] + 17 + off]] : [[near[0] + 14 + off, near[1]], [far[0] - WORDS - off, far[1]], [(near[0] + far[0]) / 2 - 16, near[1] - 24 - off]];
      const free = (at: Flat) => written.every((other) => Math.abs(other[0] - at[0]) > WORDS || Math.abs(other[1] - at[1]) > 15);
      const wordy = scale.perMetre > LEGIBLE || chosen === row.key;
      const at = (wordy ? places.find(free) : null) ?? places[0] ?? [0, 0];
      const shown = wordy && free(at);
      written.push(at);
      return [{ row, line, at, shown }];
    });
  return (
    <g pointerEvents="none" className="plannames">
      {plot.features.map((feature) => {
        const { points } = placing.feature(feature);
        const [a, b] = [points[0], points[1] ?? points[0]];
        if (!a || !b) return null;
        const [[x0, y0], [x1, y1]] = [scale.at(a), scale.at(b)];
        const long = Math.hypot(x1 - x0, y1 - y0);
        if (chosen !== feature.key && (scale.perMetre < LEGIBLE || (!feature.round && long < feature.name.length * ROOM + 20))) return null;
        const turn = level((Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI);
        const onPath = feature.kind === "path";
        const part = onPath ? 0.5 : ASIDE;
        const flip = feature.round && x0 > width - feature.name.length * ROOM - 20;
        return (
          <text key={feature.key} transform={feature.round ? `translate(${x0 + (flip ? -12 : 12)} ${y0 + 4})` : `translate(${x0 + (x1 - x0) * part} ${y0 + (y1 - y0) * part}) rotate(${turn.toFixed(1)})`} y={onPath ? 4 : feature.round ? 0 : -6 - (feature.width / 2) * scale.perMetre} textAnchor={feature.round ? (flip ? "end" : "start") : "middle"} className="caption">
            {feature.name}
          </text>
        );
      })}
      {plot.beds.map((bed) => {
        const place = placing.bed(bed);
        const [long, wide] = [bed.length * scale.perMetre, bed.width * scale.perMetre];
        const text = sun.get(bed.key) ?? bed.name;
        if (chosen === bed.key && !sun.size) return null; // its name stands beside the plan, its handles here
        if (chosen !== bed.key && (Math.max(long, wide) < text.length * ROOM * 0.86 || Math.min(long, wide) < 8)) return null;
        const turn = level(place.bearing - 90);
        const below = Math.cos(((turn - (place.bearing - 90)) * Math.PI) / 180) > 0 ? -1 : 1;
        const edge = scale.at(beside(place.middle, place.bearing, 0, below * (bed.width / 2 + bed.board)));
        return (
          <text key={bed.key} transform={`translate(${edge[0].toFixed(1)} ${edge[1].toFixed(1)}) rotate(${turn.toFixed(1)})`} y={chosen === bed.key ? 30 : 13} textAnchor="middle" className={`caption${chosen === bed.key ? " ink" : ""}`}>
            {text}
          </text>
        );
      })}
      {spots.map(({ row, line, at: [x, y], shown }) => (
        <g key={row.key} transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}>
          <g transform={`scale(${GLYPH}) translate(-12 -20)`}>
            <path d="M6 13a6 6 0 0 1 12 0v14a6 6 0 0 1-12 0z" stroke="var(--paper)" strokeWidth={9} fill="var(--paper)" />
            <LinkGlyph state={line.state} />
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

/** An angle at which text can be read: not upside down. */
function level(degrees: number): number {
  const angle = ((degrees % 360) + 360) % 360;
  return angle > 90 && angle <= 270 ? angle - 180 : angle > 270 ? angle - 360 : angle;
}

/** The shadow of each row of leaves, darker the more leaf there is. */
export function Shadows({ shade, scale }: { shade: Schemas["ShadeOut"]; scale: Scale }) {
  return (
    <g pointerEvents="none">
      <pattern id="shadow-lines" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
        <path d="M0 3H6" stroke="var(--ink)" strokeWidth="1" />
      </pattern>
      {shade.shadows.map(([outline, cover], i) => (
        <g key={i} opacity={0.25 + 0.5 * cover}>
          <path d={pathOf(outline, scale.at)} fill="var(--shadow)" opacity={0.45} />
          <path d={pathOf(outline, scale.at)} fill="url(#shadow-lines)" opacity={0.7} />
        </g>
      ))}
    </g>
  );
}

/** The lines along which something was brought into line with its neighbours. */
export function Guides({ guides, scale }: { guides: readonly Guide[]; scale: Scale }) {
  return (
    <g pointerEvents="none">
      {guides.map((guide) => {
        const a = scale.at(guide.upright ? [guide.at, guide.from] : [guide.from, guide.at]);
        const b = scale.at(guide.upright ? [guide.at, guide.to] : [guide.to, guide.at]);
        return <path key={`${guide.upright}${guide.at}`} d={`M${a.join(" ")}L${b.join(" ")}`} stroke="var(--ink)" strokeWidth={1} strokeDasharray="2 4" />;
      })}
    </g>
  );
}

/** Distances to the nearest neighbours, while something is moved. */
export function Gaps({ gaps, scale }: { gaps: readonly Schemas["Gap"][]; scale: Scale }) {
  return (
    <g pointerEvents="none" className="plannames">
      {gaps.map((gap) => {
        const [a, b] = [scale.at(gap.start), scale.at(gap.end)];
        if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 6) return null;
        return (
          <g key={gap.to}>
            <path d={`M${a.join(" ")}L${b.join(" ")}M${a[0] - 4} ${a[1] + 4}l8 -8M${b[0] - 4} ${b[1] + 4}l8 -8`} stroke="var(--ink)" strokeWidth={1.2} />
            <text x={(a[0] + b[0]) / 2 + 5} y={(a[1] + b[1]) / 2 - 5} className="caption ink">
              {gap.text}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** Where something is in the way: a small flag in ink, filled when it is wrong. */
export function WarningMarks({ warnings, scale, chosen }: { warnings: readonly Schemas["Warned"][]; scale: Scale; chosen: string | null }) {
  return (
    <g pointerEvents="none">
      {warnings.map((warning, i) => {
        const [x, y] = scale.at(warning.at);
        const about = chosen !== null && warning.things.includes(chosen);
        return (
          <g key={i} transform={`translate(${x.toFixed(1)} ${y.toFixed(1)})`}>
            <title>{warning.text}</title>
            <path d="M0 0V-21" stroke="var(--ink)" strokeWidth={1.6} />
            <path d="M0 -21l13 4.5l-13 4.5z" fill={warning.level === "wrong" ? "var(--ink)" : "var(--paper)"} stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round" />
            <circle r={about ? 4.5 : 2.2} fill={about ? "none" : "var(--ink)"} stroke="var(--ink)" strokeWidth={1.6} />
          </g>
        );
      })}
    </g>
  );
}
