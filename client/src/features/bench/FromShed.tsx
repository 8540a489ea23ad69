import { useState } from "react";

import { type Draft, type Report, type Schemas } from "../../api/client";
import { askTake } from "../../api/calculated";
import { say } from "../../texts/say";

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
      setSaid(say("common.theServerDidNotAnswer"));
    }
  };
  return (
    <section className="fromshed" aria-label={say("bench.fromTheShed")}>
      <h2>{say("bench.fromTheShed")}</h2>
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
            ? say("bench.thePartsReservedFromTheShed")
            : say("bench.noPartsFromTheShedAre")}
        </p>
      )}
      <button type="button" className="plain" style={{ paddingLeft: 0 }} onClick={() => void take()}>
        {own.length > 0 ? say("bench.searchAgain") : say("bench.usePartsFromTheShed")}
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
          {say("bench.returnPartsToTheShed")}
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
