import type { Garden, Schemas } from "./client";

type Plot = Schemas["PlotDrawing"];

/** Things with those laid over them that differ; what is gone goes, what is new comes last. */
function over<T extends { key: string }>(
  before: readonly T[],
  after: readonly T[],
  gone: ReadonlySet<string>,
): T[] {
  const changed = new Map(after.map((each) => [each.key, each]));
  const known = new Set(before.map((each) => each.key));
  return [
    ...before.filter((each) => !gone.has(each.key)).map((each) => changed.get(each.key) ?? each),
    ...after.filter((each) => !known.has(each.key)),
  ];
}

/** A plan with the marks laid over it that differ in another. */
export function drawnOver(plot: Plot, other: Plot, gone: readonly string[]): Plot {
  const left = new Set(gone);
  return {
    ...other,
    beds: over(plot.beds, other.beds, left),
    features: over(plot.features, other.features, left),
    structures: over(plot.structures, other.structures, left),
  };
}

/** A garden with what differs from it since its number. */
export function merged(garden: Garden, change: Schemas["GardenDifference"]): Garden {
  const gone = new Set(change.gone);
  const place = new Map(change.order?.map((key, n) => [key, n]));
  const rows = <T extends { key: string }>(before: readonly T[], after: readonly T[]): T[] => {
    const all = over(before, after, gone);
    return place.size ? all.sort((a, b) => (place.get(a.key) ?? 0) - (place.get(b.key) ?? 0)) : all;
  };
  return {
    ...garden,
    number: change.number,
    name: change.name,
    units: change.units,
    role: change.role,
    undo: change.undo,
    redo: change.redo,
    place: change.place,
    room: change.room,
    next_bed: change.next_bed,
    beds: rows(garden.beds, change.beds),
    features: rows(garden.features, change.features),
    structures: rows(garden.structures, change.structures),
    needs: rows(garden.needs, change.needs),
    plot: drawnOver(garden.plot, change.plot, change.undrawn),
    warnings: change.warnings ?? garden.warnings,
    unreadable: change.unreadable ?? garden.unreadable,
  };
}
