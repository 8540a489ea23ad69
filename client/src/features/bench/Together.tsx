import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useState } from "react";

import { type Draft, type OptionField, type Schemas } from "../../api/client";
import { useSizing } from "../../api/calculated";
import { Pick } from "../../ui/Pick";
import { Tick } from "../../ui/Tick";
import { upTo } from "../../ui/upTo";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  /** What can be decided, so that some of it can be left as it is. */
  options: readonly OptionField[];
  onFix: (changes: Record<string, unknown>, taken: Draft["taken"]) => void;
}

type Aim = Schemas["SizingWanted"]["aim"];

const AIMS: readonly { key: Aim; name: string }[] = [
  { key: "cheapest", name: "cheapest that holds" },
  { key: "per-season", name: "cheapest in a season" },
  { key: "strongest", name: "strongest for the money" },
  { key: "fewest-kinds", name: "fewest kinds of part" },
  { key: "longest-lived", name: "longest-lived parts" },
  { key: "own", name: "least to buy: use the shed" },
];

/** A structure sized as a whole for an aim: what changes, what for, what stops it; taken in one press. */
export function Together({ structure, draft, options, onFix }: Props) {
  const [aim, setAim] = useState<Aim>("cheapest");
  const [budget, setBudget] = useState("");
  const [locked, setLocked] = useState<OptionField[]>([]);
  const [shed, setShed] = useState(true);
  const [asked, setAsked] = useState<Schemas["SizingWanted"] | null>(null);
  const money = Number(budget.replace(",", "."));
  const wrong = budget.trim() !== "" && !(money >= 0);
  const sizing = useSizing(structure, draft, asked);
  const ask = () =>
    setAsked({
      aim,
      budget: budget.trim() === "" ? null : money,
      locked: locked.map((field) => field.name),
      shed: shed || aim === "own",
    });
  const found = asked ? sizing.data : undefined;
  return (
    <section className="together" aria-label="Size the whole support">
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
      {wrong && (
        <p role="alert" className="refusal">
          At most, {structure.currency}: ‘{budget}’ cannot be used. Enter 0 or more.
        </p>
      )}
      <Autocomplete<OptionField, true>
        multiple
        size="small"
        value={locked}
        options={options}
        getOptionKey={(field) => field.name}
        getOptionLabel={(field) => field.label}
        isOptionEqualToValue={(field, now) => field.name === now.name}
        onChange={(_event, fields) => setLocked(fields)}
        renderInput={(params) => (
          <TextField {...params} variant="standard" label="Keep as it is" placeholder="Keep an option" />
        )}
      />
      <Tick label="use parts from the shed" checked={shed || aim === "own"} onTick={setShed} />
      <button type="button" className="plain" style={{ paddingLeft: 0 }} disabled={wrong} onClick={ask}>
        Find a design
      </button>
      {asked && !found && (
        <p className="quiet" role="status">
          {sizing.isError ? "The server did not answer." : "Calculating…"}
        </p>
      )}
      {found && (
        <>
          {found.stopped && <p>{found.stopped}</p>}
          {found.words.length > 0 && (
            <button
              type="button"
              className="fix"
              onClick={() => {
                onFix(found.changes, found.taken);
                setAsked(null);
              }}
            >
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
                Together they hold {upTo(found.limit_text)}
                {found.holds ? ": that is enough." : ": still too weak."}
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
