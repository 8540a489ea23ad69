import type { Schemas } from "../../api/client";
import { useDivides } from "../../api/queries";
import { say } from "../../texts/say";

interface Props {
  garden: number;
  bed: string;
  units: string;
  /** Nothing while kinds are still being looked at: it would be asked again and again. */
  sent: Schemas["DividesIn"] | null;
}

/** Where growers differ, decided by computing: which side won here, by what, and what would turn it. */
export function Divides({ garden, bed, units, sent }: Props) {
  const found = useDivides(garden, bed, sent, units);
  if (!found.data?.divides.length) return null;
  return (
    <section className="divides" aria-label={say("support.whereGrowersDiffer")}>
      <h2>{say("support.whereGrowersDiffer")}</h2>
      {found.data.divides.map((row) => (
        <details key={row.key}>
          <summary>
            <strong>{row.topic}.</strong> {row.won}
          </summary>
          <p>{row.why}</p>
          {row.turn && <p>{row.turn}</p>}
          <p className="quiet">{row.gains.join("; ")}.</p>
        </details>
      ))}
    </section>
  );
}
