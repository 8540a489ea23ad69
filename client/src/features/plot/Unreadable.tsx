import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

type Row = Schemas["UnreadableRow"];

interface Props {
  rows: Row[];
  onTakeAway: ((row: Row) => void) | undefined;
}

/** What is stored of this garden and cannot be shown: its name, why, its text as it is kept. */
export function Unreadable({ rows, onTakeAway }: Props) {
  return (
    <section className="rollbed" aria-label={say("plot.cannotBeRead")}>
      <h2>{say("plot.cannotBeRead")}</h2>
      <p className="quiet">{say("plot.itIsStoredUnchangedAndThe")}</p>
      {rows.map((row) => (
        <details key={row.key} className="unreadable">
          <summary>
            <strong>{row.name}</strong> <span className="quiet">{row.kind}</span>
          </summary>
          <p className="refusal">{row.why}</p>
          <pre>{row.text}</pre>
          {onTakeAway && row.kind !== "place" && (
            <button type="button" className="plain" onClick={() => onTakeAway(row)}>
              {say("plot.removeIt")}
            </button>
          )}
        </details>
      ))}
    </section>
  );
}
