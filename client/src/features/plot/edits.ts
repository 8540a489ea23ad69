import type { Edit, Garden } from "../../api/client";
import { sameThing } from "../../queue/writes";

/** The revision of what an edit changes, as far as it is known. */
export function revisionOf(garden: Garden, edit: Edit): number | undefined {
  if (edit.kind === "place") return garden.place.revision;
  if (!["bed", "feature", "structure"].includes(edit.kind)) return undefined; // their pages say their own
  const rows = { bed: garden.beds, feature: garden.features, structure: garden.structures }[
    edit.kind as "bed"
  ] as {
    key: string;
    revision: number;
  }[];
  return rows.find((row) => row.key === edit.key)?.revision;
}

/** Two edits of one thing as one, when the later only changes what the earlier changes or adds. */
export function joined(earlier: Edit, later: Edit): Edit | null {
  if (
    !sameThing(earlier, later) ||
    (later.kind !== "place" && later.act !== "change") ||
    (earlier.kind !== "place" && earlier.act === "remove")
  )
    return null;
  return { ...earlier, change: { ...earlier.change, ...later.change } } as Edit;
}

const FIELD: Record<string, string> = {
  x: "place",
  y: "place",
  along: "place",
  across: "place",
  points: "place",
  fill_depth: "fill",
};

/** What an edit does, in words. */
export function wordsOf(garden: Garden, edit: Edit): string {
  const rows = [
    ...garden.beds.map((bed) => ({ key: bed.key, name: bed.fields.name })),
    ...garden.features.map((each) => ({ key: each.key, name: each.fields.name })),
    ...garden.structures,
  ];
  const name =
    edit.kind === "place"
      ? garden.name
      : (rows.find((row) => row.key === edit.key)?.name ??
        (edit.kind === "entry" ? edit.change?.line : edit.change?.name) ??
        edit.key);
  if (edit.kind !== "place" && edit.act !== "change")
    return `${name} ${edit.act === "add" ? "added" : "removed"}`;
  const fields = [
    ...new Set(Object.keys(edit.change ?? {}).map((field) => FIELD[field] ?? field.replaceAll("_", " "))),
  ];
  return `${name}: ${fields.join(", ")}`;
}
