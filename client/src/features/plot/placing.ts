import type { BedMark, Edit, FeatureMark, Garden, Schemas, StructureMark } from "../../api/client";
import { beside, turned } from "../../drawing/plan";
import type { Flat } from "../../drawing/scale";

export interface Place {
  middle: Flat;
  bearing: number;
}

/** What of a change is given. */
export type Given<C> = { [K in keyof C]?: NonNullable<C[K]> };

/** What is wanted of each thing, by its key. */
export interface Wanted {
  bed: Map<string, Given<Schemas["BedChange"]>>;
  feature: Map<string, Given<Schemas["FeatureChange"]>>;
  structure: Map<string, Given<Schemas["StructureChange"]>>;
}

/** A change without what it says nothing of. */
export const given = <C extends object>(change: C | undefined): Given<C> =>
  Object.fromEntries(Object.entries(change ?? {}).filter(([, value]) => value != null)) as Given<C>;

type Plot = Garden["plot"];

/** Where the hand wants things, which may be ahead of the plan that the core has drawn so far. */
export class Placing {
  private readonly beds: Map<string, BedMark>;
  private readonly rows: Map<string, Garden["structures"][number]>;

  constructor(
    private readonly garden: Garden,
    plot: Plot,
    private readonly wanted: Wanted,
  ) {
    this.beds = new Map(plot.beds.map((bed) => [bed.key, bed]));
    this.rows = new Map(garden.structures.map((row) => [row.key, row]));
  }

  bed(mark: BedMark): Place {
    const want = this.wanted.bed.get(mark.key);
    return {
      middle: [want?.x ?? mark.middle[0], want?.y ?? mark.middle[1]],
      bearing: want?.bearing ?? mark.bearing,
    };
  }

  structure(mark: StructureMark): Place {
    const home = this.beds.get(mark.bed);
    const row = this.rows.get(mark.key);
    const want = this.wanted.structure.get(mark.key);
    if (!home || !row || want?.bed || want?.options) return mark;
    const bed = this.bed(home);
    return {
      middle: beside(bed.middle, bed.bearing, want?.along ?? row.along, want?.across ?? row.across),
      bearing: turned(bed.bearing + (want?.turn ?? row.turn)),
    };
  }

  feature(mark: FeatureMark): FeatureMark {
    const want = this.wanted.feature.get(mark.key);
    return {
      ...mark,
      points: want?.points ?? mark.points,
      width: want?.width ?? mark.width,
    };
  }

  fields(key: string): Schemas["BareBed"] | undefined {
    const base = this.garden.beds.find((bed) => bed.key === key)?.fields;
    return base && { ...base, ...this.wanted.bed.get(key) };
  }

  row(key: string) {
    const base = this.rows.get(key);
    const want = this.wanted.structure.get(key);
    return (
      base && {
        ...base,
        along: want?.along ?? base.along,
        across: want?.across ?? base.across,
        turn: want?.turn ?? base.turn,
        length: (want?.options?.[base.stretch] as number | undefined) ?? base.length,
      }
    );
  }
}

/** The SVG transform that carries a mark from where it was drawn to where it is wanted. */
export function carried(from: Place, to: Place, at: (point: Flat) => [number, number]): string | undefined {
  const [x0, y0] = at(from.middle);
  const [x1, y1] = at(to.middle);
  const turn = to.bearing - from.bearing;
  if (Math.abs(x1 - x0) < 0.01 && Math.abs(y1 - y0) < 0.01 && Math.abs(turn) < 0.001) return undefined;
  return `translate(${x1.toFixed(2)} ${y1.toFixed(2)}) rotate(${turn.toFixed(2)}) translate(${(-x0).toFixed(2)} ${(-y0).toFixed(2)})`;
}

export type Kind = "bed" | "feature" | "structure";

/** An edit that changes one thing. */
export function changeOf(kind: Kind, key: string, change: object): Exclude<Edit, Schemas["PlaceEdit"]> {
  return { kind, act: "change", key, change };
}
