import type { Garden, Schemas } from "../api/client";

/**
 * What was sent and what was answered may come out of the browser's database, from an older page: it is
 * looked at before it is believed.
 */
function has<K extends string>(data: unknown, ...keys: readonly K[]): data is Record<K, unknown> {
  return typeof data === "object" && data !== null && keys.every((key) => key in data);
}

export const isSaveIn = (data: unknown): data is Schemas["SaveIn"] => has(data, "draft");
export const isEditsIn = (data: unknown): data is Schemas["EditsIn"] =>
  has(data, "edits") && Array.isArray(data.edits);
export const isEditsOut = (data: unknown): data is Schemas["EditsOut"] =>
  has(data, "changed", "revisions", "made");
export const isStructureOut = (data: unknown): data is Schemas["StructureOut"] =>
  has(data, "draft", "revision", "garden");
export const isGarden = (data: unknown): data is Garden => has(data, "plot", "beds", "structures");
export const isConflict = (data: unknown): data is Schemas["Conflict"] => has(data, "garden", "things");
export const isStructureConflict = (data: unknown): data is Schemas["StructureConflict"] =>
  has(data, "saved", "differences");
