import type { LinkReport } from "../../api/client";

export interface Hung {
  link: LinkReport;
  column: 0 | 1;
  row: number;
}

/** Hang the links: the first path straight down, what forks off beside it. */
export function hang(links: readonly LinkReport[]): Hung[] {
  const byKey = new Map(links.map((link) => [link.key, link]));
  const hung = new Map<string, Hung>();
  const deepest = [-1, -1];
  const walk = (key: string, column: 0 | 1, row: number): void => {
    const link = byKey.get(key);
    if (!link || hung.has(key)) return;
    const free = Math.max(row, (deepest[column] ?? -1) + 1);
    hung.set(key, { link, column, row: free });
    deepest[column] = free;
    link.hands_to.forEach((to, index) => walk(to, index === 0 ? column : 1, free + 1));
  };
  const reached = new Set(links.flatMap((link) => link.hands_to));
  links
    .filter((link) => !reached.has(link.key))
    .forEach((link, index) => walk(link.key, index === 0 ? 0 : 1, 0));
  return [...hung.values()];
}
