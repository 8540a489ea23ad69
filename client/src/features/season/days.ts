/** Days on a sheet: from which Monday, over how many weeks, how wide. */
export interface Scale {
  from: string;
  weeks: number;
  width: number;
}

const DAY_MS = 86_400_000;
const utc = (day: string) => Date.parse(`${day}T00:00:00Z`);

/** How many days one day lies after another. */
export const daysFrom = (from: string, day: string) => Math.round((utc(day) - utc(from)) / DAY_MS);

/** The day so many days after another. */
export const dateAt = (from: string, days: number) =>
  new Date(utc(from) + days * DAY_MS).toISOString().slice(0, 10);

export const sayDay = (day: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long", timeZone: "UTC" }).format(utc(day));

export const sayMonth = (day: string) =>
  new Intl.DateTimeFormat("en-GB", { month: "short", timeZone: "UTC" }).format(utc(day));

/** Where a day lies across a sheet, in pixels. */
export const across = (scale: Scale, day: string) =>
  (daysFrom(scale.from, day) / (7 * scale.weeks)) * scale.width;

/** The first of each month on a sheet. */
export function monthsOf(scale: Scale): string[] {
  const months: string[] = [];
  const end = dateAt(scale.from, 7 * scale.weeks);
  let [year = 0, month = 1] = scale.from.split("-").map(Number);
  for (;;) {
    month += 1;
    if (month > 12) [year, month] = [year + 1, 1];
    const first = `${year}-${String(month).padStart(2, "0")}-01`;
    if (first >= end) return months;
    months.push(first);
  }
}
