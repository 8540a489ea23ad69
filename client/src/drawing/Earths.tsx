import { HATCH } from "./hatch";
import { Hatch } from "./Hatch";

/** The patterns of every kind of earth, for drawings that show more than one. */
export const Earths = () => (
  <defs>
    {Object.keys(HATCH).map((kind) => (
      <Hatch key={kind} id={`earth-${kind}`} kind={kind} colour="var(--soil2)" />
    ))}
  </defs>
);
