/** What a material is drawn in. */
export const INK: Record<string, string> = {
  metal: "var(--metal)",
  wood: "var(--wood)",
  cane: "var(--cane)",
  soil: "var(--soil2)",
  twine: "var(--cane)",
  leaf: "var(--leaf2)",
};
