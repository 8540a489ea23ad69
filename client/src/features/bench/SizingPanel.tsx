import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useState } from "react";

import { type Draft, type OptionField, type Schemas } from "../../api/client";
import { useSizing } from "../../api/calculated";
import { Pick } from "../../ui/Pick";
import { Tick } from "../../ui/Tick";
import { upTo } from "../../ui/upTo";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  /** What can be decided, so that some of it can be left as it is. */
  options: readonly OptionField[];
  onFix: (changes: Record<string, unknown>, taken: Draft["taken"]) => void;
}

type Aim = Schemas["SizingWanted"]["aim"];

const AIMS: readonly { key: Aim; name: string }[] = [
  { key: "cheapest", name: say("bench.cheapestThatHolds") },
  { key: "per-season", name: say("bench.cheapestInASeason") },
  { key: "strongest", name: say("bench.strongestForTheMoney") },
  { key: "fewest-kinds", name: say("bench.fewestKindsOfPart") },
  { key: "longest-lived", name: say("bench.longestLivedParts") },
  { key: "own", name: say("bench.leastToBuyUseTheShed") },
];

/** A structure sized as a whole for an aim: what changes, what for, what stops it; taken in one press. */
export function SizingPanel({ structure, draft, options, onFix }: Props) {
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
    <section className="together" aria-label={say("bench.sizeTheWholeSupport")}>
      <Pick label={say("bench.for")} value={aim} choices={AIMS} onPick={(key) => setAim(key as Aim)} />
      <label className="row">
        <span className="label">{say("bench.atMost", { currency: structure.currency })}</span>
        <input
          className="input"
          inputMode="decimal"
          placeholder={say("bench.noLimit")}
          value={budget}
          aria-invalid={wrong}
          onChange={(event) => setBudget(event.target.value)}
        />
      </label>
      {wrong && (
        <p role="alert" className="refusal">
          {say("bench.atMostCannotBeUsedEnter", { currency: structure.currency, budget })}
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
          <TextField
            {...params}
            variant="standard"
            label={say("bench.keepAsItIs")}
            placeholder={say("bench.keepAnOption")}
          />
        )}
      />
      <Tick label={say("bench.usePartsFromTheShed2")} checked={shed || aim === "own"} onTick={setShed} />
      <button type="button" className="plain" style={{ paddingLeft: 0 }} disabled={wrong} onClick={ask}>
        {say("bench.findADesign")}
      </button>
      {asked && !found && (
        <p className="quiet" role="status">
          {sizing.isError ? say("common.theServerDidNotAnswer") : say("common.calculating")}
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
                {say(found.holds ? "bench.togetherTheyHoldEnough" : "bench.togetherTheyHoldTooLittle", {
                  limitText: upTo(found.limit_text),
                })}
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
