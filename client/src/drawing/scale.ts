import type { View } from "../api/client";

export type Flat = readonly [number, number];

/** Room round a drawing, in pixels. */
export interface Margins {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export interface Scale {
  perMetre: number;
  at: (point: Flat) => [number, number];
}

/** The scale that shows a view whole in a box; up is up. */
export function scaleOf(view: Pick<View, "low" | "high">, width: number, height: number, room: Margins): Scale {
  const [u0, v0] = view.low;
  const [u1, v1] = view.high;
  const inner = { width: Math.max(width - room.left - room.right, 40), height: Math.max(height - room.top - room.bottom, 40) };
  const perMetre = Math.min(inner.width / Math.max(u1 - u0, 0.1), inner.height / Math.max(v1 - v0, 0.1));
  const left = room.left + (inner.width - (u1 - u0) * perMetre) / 2;
  const top = room.top + (inner.height - (v1 - v0) * perMetre) / 2;
  return { perMetre, at: ([u, v]) => [left + (u - u0) * perMetre, top + (v1 - v) * perMetre] };
}
