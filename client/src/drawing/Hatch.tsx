import { HATCH } from "./hatch";

/** A pattern that fills with one kind of earth. */
export function Hatch({ id, kind, colour }: { id: string; kind: string; colour: string }) {
  const tile = HATCH[kind] ?? HATCH.loam;
  if (!tile) return null;
  return (
    <pattern id={id} width={tile.size} height={tile.size} patternUnits="userSpaceOnUse">
      <path d={tile.path} stroke={colour} strokeWidth={tile.width} fill="none" strokeLinecap="round" />
    </pattern>
  );
}
