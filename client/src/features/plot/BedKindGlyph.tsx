const SHAPES: Record<string, string> = {
  "in-ground": "M4 34H68M22 34q2 -9 6 -12M28 34q0 -8 2 -14M44 34q2 -9 6 -12M50 34q0 -8 2 -14",
  raised: "M4 40H68M14 40V24H58V40M14 32H58M28 24q0 -8 2 -14M44 24q0 -8 2 -14",
  container: "M4 40H68M24 20L28 40H44L48 20ZM36 20q0 -8 2 -14",
  "straw-bale": "M4 40H68M16 20H56V40H16ZM16 27H56M16 33H56M28 20V40M44 20V40M36 20q0 -8 2 -14",
};

/** A bed from its end: in the ground, between boards, in a container, of straw. */
export function BedKindGlyph({ kind }: { kind: string }) {
  return (
    <svg viewBox="0 0 72 44" width="72" height="44" aria-hidden="true">
      <path
        d={SHAPES[kind] ?? SHAPES["in-ground"]}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.8"
        strokeLinejoin="round"
      />
    </svg>
  );
}
