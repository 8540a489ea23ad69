import type { Draft } from "../../api/client";

/**
 * The value at a path of a draft, such as ‘name’, ‘options.depth’ or ‘plantings.p1.spacing’, the planting
 * named by its key.
 */
export function valueAt(draft: Draft, path: string): unknown {
  const [head = "", second = "", third = ""] = path.split(".");
  const at: unknown =
    head === "plantings"
      ? draft.plantings.find((planting) => planting.key === second)
      : draft[head as keyof Draft];
  const name = head === "plantings" ? third : second;
  return name ? (at as Record<string, unknown> | undefined)?.[name] : at;
}
