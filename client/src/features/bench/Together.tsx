import { useState } from "react";

import { type Draft, type Schemas } from "../../api/client";
import { useSizing } from "../../api/reckoned";
import { Pick } from "../../ui/Pick";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  onFix: (changes: Record<string, unknown>) => void;
}

type Aim = Schemas["SizingWanted"]["aim"];

const AIMS: readonly { key: Aim; name: string }[] = [
  { key: "cheapest", name: "cheapest that holds" },
  { key: "per-season", name: "cheapest in a season" },
  { key: "strongest", name: "strongest for the money" },
  { key: "fewest-kinds", name: "fewest kinds of part" },
  { key: "longest-lived", name: "longest-lived parts" },
];

/** A structure sized as a whole for an aim: what changes, what for, what stops it; taken in one press. */
export function Together({ structure, draft, onFix }: Props) {
  const [aim, setAim] = useState<Aim>("cheapest");
  const [budget, setBudget] = useState("");
  const [asked, setAsked] = useState<Schemas["SizingWanted"] | null>(null);
  const money = Number(budget.replace(",", "."));
  const wrong = budget.trim() !== "" && !(money >= 0);
  const sizing = useSizing(structure, draft, asked);
  const ask = () => setAsked({ aim, budget: budget.trim() === "" ? null : money, locked: [] });
  const found = asked ? sizing.data : undefined;
  return (
    <section className="together" aria-label="Size the whole of it">
      <Pick label="For" value={aim} choices={AIMS} onPick={(key) => setAim(key as Aim)} />
      <label className="row">
        <span className="label">At most, {structure.currency}</span>
        <input
          className="input"
          inputMode="decimal"
          placeholder="no limit"
          value={budget}
          aria-invalid={wrong}
          onChange={(event) => setBudget(event.target.value)}
        />
      </label>
      <button type="button" className="plain" style={{ paddingLeft: 0 }} disabled={wrong} onClick={ask}>
        Look for it
      </button>
      {asked && !found && (
        <p className="quiet" role="status">
          {sizing.isError ? "The server did not answer." : "Looking through the ways of building it…"}
        </p>
      )}
      {found && (
        <>
          {found.stopped && <p>{found.stopped}</p>}
          {found.words.length > 0 && (
            <button type="button" className="fix" onClick={() => onFix(found.changes)}>
              {found.words.map((change) => (
                <span key={change.words} className="change">
                  <strong>{change.words}</strong>{" "}
                  <span className="quiet">
                    {change.why}; {change.cost_text}
                  </span>
                </span>
              ))}
              <span className="narrow">{found.cost_text}</span>
              <span className="quiet said">
                together to {found.limit_text}
                {found.holds ? ", holds" : ", still short"}
              </span>
            </button>
          )}
          <p className="quiet">
            {found.looked} {found.said}
          </p>
        </>
      )}
    </section>
  );
}
