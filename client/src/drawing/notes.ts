import type { View } from "../api/client";
import { NARROW, sheetLayout, type SheetLayout } from "./layout";

/** Where notes stand on a sheet: beside the view from above, or in columns along its foot. */
export interface NotesPlace {
  x: number;
  y: number;
  width: number;
  height: number;
  columns: number;
}

const LETTER = 6.2; // of text, on the average [px]
const LINE = 18;
const GAP = 8;
const LEAST = 190; // px wide that can be read
const MOST = 300;
const EDGE = 20;
const TITLE = 76; // of the view from above, beside it
const AIR = 30;

const tall = (texts: readonly string[], width: number) =>
  texts.reduce((sum, text) => sum + Math.ceil((text.length * LETTER) / (width - 18)) * LINE + GAP, 0);

/** The free ground of a sheet beside its view from above, where some notes fit. */
function notesBeside(
  layout: SheetLayout,
  texts: readonly string[],
  width: number,
  height: number,
): NotesPlace | null {
  const { plan } = layout.box;
  const right = plan.x + plan.width + 16;
  for (const [x, y] of [
    [right, plan.y + 24],
    [right + TITLE, layout.ground.y + layout.ground.height + GAP],
  ] as const) {
    const beside = Math.min(width - x - EDGE, MOST);
    const needed = tall(texts, beside);
    if (beside >= LEAST && y + needed <= height)
      return { x, y: Math.min(y + AIR, height - needed), width: beside, height: needed, columns: 1 };
  }
  return null;
}

/** The foot of a sheet, of whose height some notes take what they need. */
function notesAtFoot(texts: readonly string[], width: number): NotesPlace {
  const columns = Math.min(texts.length, 2);
  const column = (width - EDGE * (columns + 1)) / columns;
  const half = Math.ceil(texts.length / columns);
  const foot = Math.max(tall(texts.slice(0, half), column), tall(texts.slice(half), column));
  return { x: EDGE, y: 0, width: width - 2 * EDGE, height: foot, columns };
}

const CLOSER = 2; // times the width, to draw a long row larger
const WORTH = 1.3; // times larger, from which one wants to

/** Whether a row is so long that it is drawn larger on a sheet that is scrolled. */
export function worthCloser(
  views: Record<View["name"], View>,
  tallest: number,
  width: number,
  height: number,
): boolean {
  const closer = sheetLayout(views, tallest, CLOSER * width, height).perMetre;
  return closer >= WORTH * sheetLayout(views, tallest, width, height).perMetre;
}

/**
 * A sheet and the place of some notes on it: beside the view from above, the drawing moved over for them if
 * it must; else at the foot; on a narrow sheet nowhere. Closer, the sheet is wider than its window and the
 * notes stand at the foot of what is seen first.
 */
export function sheetWithNotes(
  views: Record<View["name"], View>,
  tallest: number,
  width: number,
  height: number,
  notes: readonly string[],
  closer: boolean,
): { layout: SheetLayout; place: NotesPlace | null } {
  const laid = (foot: number, aside = closer ? 0 : undefined) =>
    sheetLayout(views, tallest, closer ? CLOSER * width : width, height - foot, aside);
  const whole = laid(0);
  if (!notes.length || width < NARROW) return { layout: whole, place: null };
  for (const layout of closer ? [] : [whole, laid(0, 0)]) {
    const place = notesBeside(layout, notes, width, height);
    if (place) return { layout, place };
  }
  const foot = notesAtFoot(notes, width);
  const above = laid(foot.height);
  return {
    layout: { ...above, height: above.height + foot.height },
    place: { ...foot, y: above.height },
  };
}
