import { useState } from "react";

import { type Draft, type Report, type Schemas } from "../../api/client";
import { askTake } from "../../api/calculated";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  report: Report | null;
  onTaken: (taken: Draft["taken"]) => void;
}

/** What a structure has of the shed: taken when it fits, given back in one press. */
export function FromShed({ structure, draft, report, onTaken }: Props) {
  const [said, setSaid] = useState("");
  const own = report?.parts.filter((part) => part.own) ?? [];
  const take = async () => {
    try {
      const out = await askTake(structure.id, draft);
      setSaid(out.words);
      onTaken(out.taken);
    } catch {
      setSaid("The server did not answer.");
    }
  };
  return (
    <section className="fromshed" aria-label="From the shed">
      <h2>From the shed</h2>
      {own.length > 0 ? (
        <ul>
          {own.map((part) => (
            <li key={part.own + part.use}>
              {part.name} <span className="quiet">{part.buy}</span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="quiet">
          {draft.taken.length > 0
            ? "The parts reserved from the shed no longer fit this support."
            : "No parts from the shed are used."}
        </p>
      )}
      <button type="button" className="plain" style={{ paddingLeft: 0 }} onClick={() => void take()}>
        {own.length > 0 ? "Search again" : "Use parts from the shed"}
      </button>
      {draft.taken.length > 0 && (
        <button
          type="button"
          className="plain"
          onClick={() => {
            setSaid("");
            onTaken([]);
          }}
        >
          Return parts to the shed
        </button>
      )}
      {said && (
        <p className="quiet" role="status">
          {said}
        </p>
      )}
    </section>
  );
}
