const PATHS: Record<string, string> = {
  bed: "M3 8h18v8H3zM6 12h.1M12 12h.1M18 12h.1",
  path: "M3 8h18M3 16h18",
  wall: "M2 9h20v6H2zM9 9v6M16 9v6",
  fence: "M2 12h20M5 8v8M12 8v8M19 8v8",
  door: "M3 20V5M3 20h15a15 15 0 0 0 -15 -15",
  "drip-line": "M3 12h.1M8 12h.1M13 12h.1M18 12h.1",
  "water-pipe": "M2 12h9M14 12h.1M17 12h5",
  cable: "M2 12h6M10 12h5M17 12h5",
  "steel-post": "M12 8a4 4 0 1 0 .1 0M12 11.5h.1",
  stump: "M12 6a6 6 0 1 0 .1 0M12 9a3 3 0 1 0 .1 0",
};

/** What a thing looks like on the plan, small. */
export const AddGlyph = ({ kind }: { kind: string }) => (
  <svg width="24" height="24" viewBox="0 0 24 24" aria-hidden="true">
    <path
      d={PATHS[kind] ?? "M12 12h.1"}
      fill="none"
      stroke="currentColor"
      strokeWidth={kind.includes("drip") ? 3 : 1.8}
      strokeLinecap="round"
    />
  </svg>
);
