import type { Draft } from "../../api/client";

/** The value at a path of a draft, such as ‘name’, ‘options.depth’ or ‘plantings.0.spacing’. */
export const valueAt = (draft: Draft, path: string): unknown => path.split(".").reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], draft);
