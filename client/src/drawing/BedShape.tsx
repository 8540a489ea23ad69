import type { BedMark } from "../api/client";
import { HATCH } from "./hatch";
import type { Flat, Scale } from "./scale";

export const pathOf = (points: readonly Flat[], at: Scale["at"], closed = true) =>
  points
    .map(
      (point, i) =>
        `${i ? "L" : "M"}${at(point)
          .map((n) => n.toFixed(1))
          .join(" ")}`,
    )
    .join("") + (closed ? "Z" : "");

/** A bed from above: its earth, and its boards where it has any. A container is round, bales are bound. */
export function BedShape({ bed, scale, chosen }: { bed: BedMark; scale: Scale; chosen: boolean }) {
  const { at, perMetre } = scale;
  const d = pathOf(bed.outline, at);
  const raised = bed.kind !== "in-ground";
  const hatch = HATCH[bed.hatch] ? `url(#earth-${bed.hatch})` : "none";
  const fill = raised ? "var(--fill)" : "var(--soil)";
  const edge = Math.max(bed.board * perMetre, raised ? 2 : 0);
  const [cx, cy] = at(bed.middle);
  if (bed.kind === "container") {
    const r = (Math.min(bed.length, bed.width) / 2 + bed.board) * perMetre;
    return (
      <g>
        <circle cx={cx} cy={cy} r={r} fill={fill} stroke="var(--wood)" strokeWidth={edge} />
        <circle cx={cx} cy={cy} r={r} fill={hatch} stroke={chosen ? "var(--ink)" : "none"} strokeWidth={2} />
      </g>
    );
  }
  return (
    <g>
      <path d={d} fill={fill} />
      <path d={d} fill={hatch} />
      {raised && (
        <path
          d={d}
          fill="none"
          stroke={bed.kind === "raised" ? "var(--wood)" : "var(--cane)"}
          strokeWidth={edge}
          strokeDasharray={bed.kind === "straw-bale" ? `${0.9 * perMetre} 2` : undefined}
        />
      )}
      {!raised && <path d={d} fill="none" stroke="var(--soil2)" strokeWidth={1.2} />}
      {chosen && <path d={d} fill="none" stroke="var(--ink)" strokeWidth={2} />}
    </g>
  );
}
