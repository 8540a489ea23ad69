/** How cut earth of one kind is drawn: a tile of short strokes, as on a working drawing. */
export const HATCH: Record<string, { size: number; path: string; width: number }> = {
  clay: { size: 36, path: "M3 7h15M22 16h11M7 25h13M26 32h8M1 34h7", width: 1.1 },
  loam: { size: 40, path: "M4 8h9M24 14h8M10 23h10M30 30h7M3 36h6M33 4l2 2M18 33l2 2M7 17l2 1", width: 1.1 },
  sand: { size: 24, path: "M3 4h.9M14 7h.9M8 12h.9M20 14h.9M4 19h.9M15 21h.9M21 3h.9", width: 1.7 },
  gravel: {
    size: 40,
    path: "M6 9a3 2.4 0 1 0 6 0a3 2.4 0 1 0 -6 0M26 6a2.4 2 0 1 0 5 0a2.4 2 0 1 0 -5 0M18 22a3.4 2.6 0 1 0 7 0a3.4 2.6 0 1 0 -7 0M4 31a2.4 2 0 1 0 5 0a2.4 2 0 1 0 -5 0M31 33a3 2.4 0 1 0 6 0a3 2.4 0 1 0 -6 0",
    width: 1,
  },
  crumb: {
    size: 28,
    path: "M4 5l2 -2l2 2M16 9l2 -2l2 2M8 16l2 -2l2 2M21 20l2 -2l2 2M2 24l2 -2l2 2M14 26l2 -2l2 2",
    width: 1,
  },
};
