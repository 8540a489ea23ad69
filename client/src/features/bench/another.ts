import type { Draft, Planting } from "../../api/client";

export const MOST_PLANTINGS = 4;
const LATER = 75; // days after the last one
const DAY_MS = 86_400_000;

/** A day of the year so many days after another. */
function later(day: string, days: number): string {
  const at = new Date(Date.parse(`2001-${day}T00:00:00Z`) + days * DAY_MS);
  return at.toISOString().slice(5, 10);
}

/** A draft with another crop on it, to come after the last one; which it is, and when, is changed next. */
export function withAnother(draft: Draft): Draft {
  const last = draft.plantings.at(-1);
  if (!last || draft.plantings.length >= MOST_PLANTINGS) return draft;
  const keys = new Set(draft.plantings.map((planting) => planting.key));
  let number = draft.plantings.length + 1;
  while (keys.has(`p${number}`)) number += 1;
  const next: Planting = { ...last, key: `p${number}`, planted: later(last.planted, LATER) };
  return { ...draft, plantings: [...draft.plantings, next] };
}
