import { useState } from "react";

import { type Draft, type Schemas } from "../../api/client";
import { useSizing } from "../../api/reckoned";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  onFix: (changes: Record<string, unknown>) => void;
}

/** When no single change is enough: the cheapest changes together, taken in one press. */
export function Together({ structure, draft, onFix }: Props) {
  const [asked, setAsked] = useState(false);
  const sizing = useSizing(structure, draft, asked);
  const found = sizing.data;
  if (!asked)
    return (
      <p style={{ marginTop: 8 }}>
        No single change is enough.{" "}
        <button type="button" className="plain" style={{ paddingLeft: 0 }} onClick={() => setAsked(true)}>
          Try several together
        </button>
      </p>
    );
  if (!found)
    return (
      <p className="quiet">
        {sizing.isError ? "The server did not answer." : "Trying one change after another…"}
      </p>
    );
  if (found.words.length < 2)
    return (
      <p className="quiet">
        No few changes make this hold here: a sheltered spot, a lower crop or another kind of support would.
      </p>
    );
  return (
    <button type="button" className="fix" onClick={() => onFix(found.changes)}>
      <strong>{found.words.join("; ")}</strong>
      <span className="narrow">{found.cost_text}</span>
      <span className="quiet said">
        together to {found.limit_text}
        {found.holds ? ", holds" : ", still short"}
      </span>
    </button>
  );
}
