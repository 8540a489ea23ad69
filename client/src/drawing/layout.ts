import type { View } from "../api/client";
import type { Flat, Scale } from "./scale";

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Where the three views stand on one sheet, all to one scale: side and end share the ground, side and plan
 * share the row.
 */
export interface SheetLayout {
  width: number;
  height: number;
  perMetre: number;
  narrow: boolean;
  ground: Box;
  at: Record<View["name"], Scale["at"]>;
  box: Record<View["name"], Box>;
}

const LEAST = 38; // pixels a metre below which a long row is scrolled rather than shrunk
const ROOM = { left: 62, top: 66, right: 44, below: 46, plan: 50, foot: 40 };
export const NARROW = 560; // px: a phone's sheet
const HALF = 0.52; // metres either side of the end view at the least: the posts, the leaves and the bending
const LEAVES = 0.22; // metres past what stands there

export function sheetLayout(
  views: Record<View["name"], View>,
  tallest: number,
  width: number,
  height: number,
  aside = 0.5, // share of the free width left of the drawing
): SheetLayout {
  const { elevation, plan } = views;
  const narrow = width < NARROW;
  const room = narrow ? { ...ROOM, left: 46, right: 20 } : ROOM;
  const between = narrow ? 58 : 92;
  const low = Math.min(elevation.low[1], -elevation.fill_depth - 0.15);
  const high = Math.max(elevation.high[1], tallest);
  const long = elevation.high[0] - elevation.low[0];
  const endHalf = Math.max(
    HALF,
    ...views.end.marks.flatMap((mark) =>
      [...mark.points, ...mark.lines.flat()].map((point) => Math.abs(point[0]) + LEAVES),
    ),
  );
  const wide = plan.high[1] - plan.low[1];
  const fit = Math.min(
    (width - room.left - between - room.right) / (long + 2 * endHalf),
    (height - room.top - room.below - room.plan - room.foot) / (high - low + wide),
  );
  const perMetre = Math.max(fit, LEAST);
  const inner = room.left + between + room.right + (long + 2 * endHalf) * perMetre;
  const spare = Math.max((width - inner) * aside, 0);
  const tall = room.top + (high - low) * perMetre + room.below + room.plan + wide * perMetre + room.foot;
  const air = Math.max((height - tall) / 2, 0);
  const left = room.left + spare - elevation.low[0] * perMetre;
  const level = room.top + air + high * perMetre;
  const soilFoot = level - low * perMetre + room.below;
  const endAt = left + elevation.high[0] * perMetre + between + endHalf * perMetre;
  const planAt = soilFoot + room.plan + plan.high[1] * perMetre;
  return {
    width: Math.max(inner, width),
    height: Math.max(tall, height),
    perMetre,
    narrow,
    ground: { x: 0, y: level, width: Math.max(inner, width), height: soilFoot - level },
    at: {
      elevation: ([u, v]) => [left + u * perMetre, level - v * perMetre],
      end: ([u, v]) => [endAt + u * perMetre, level - v * perMetre],
      plan: ([u, v]: Flat) => [left + u * perMetre, planAt - v * perMetre],
    },
    box: {
      elevation: {
        x: left + elevation.low[0] * perMetre,
        y: room.top + air,
        width: long * perMetre,
        height: level - room.top - air,
      },
      end: {
        x: endAt - endHalf * perMetre,
        y: room.top + air,
        width: 2 * endHalf * perMetre,
        height: level - room.top - air,
      },
      plan: {
        x: left + plan.low[0] * perMetre,
        y: soilFoot + room.plan,
        width: (plan.high[0] - plan.low[0]) * perMetre,
        height: wide * perMetre,
      },
    },
  };
}
