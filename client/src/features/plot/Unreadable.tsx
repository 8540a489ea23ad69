import type { Schemas } from "../../api/client";

type Row = Schemas["UnreadableRow"];

interface Props {
  rows: Row[];
  onTakeAway: ((row: Row) => void) | undefined;
}

/** What is stored of this garden and cannot be shown: its name, why, its text as it is kept. */
export function Unreadable({ rows, onTakeAway }: Props) {
  return (
    <section className="rollbed" aria-label="Cannot be read">
      <h2>Cannot be read</h2>
      <p className="quiet">
        It is stored unchanged, and the rest of the garden works. The history can restore an earlier state.
      </p>
      {rows.map((row) => (
        <details key={row.key} className="unreadable">
          <summary>
            <strong>{row.name}</strong> <span className="quiet">{row.kind}</span>
          </summary>
          <p className="refusal">{row.why}</p>
          <pre>{row.text}</pre>
          {onTakeAway && row.kind !== "place" && (
            <button type="button" className="plain" onClick={() => onTakeAway(row)}>
              Remove it
            </button>
          )}
        </details>
      ))}
    </section>
  );
}
