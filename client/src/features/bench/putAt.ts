import type { Draft } from "../../api/client";

/**
 * A draft with the value at a path such as ‘name’, ‘options.depth’ or ‘plantings.p1.spacing’, the planting
 * named by its key, changed.
 */
export function putAt(draft: Draft, path: string, value: unknown): Draft {
  const [head = "", second = "", third = ""] = path.split(".");
  if (!second) return { ...draft, [head]: value };
  if (head === "options") return { ...draft, options: { ...draft.options, [second]: value } };
  return {
    ...draft,
    plantings: draft.plantings.map((planting) =>
      planting.key === second ? { ...planting, [third]: value } : planting,
    ),
  };
}
