import { useState } from "react";

import type { Schemas } from "../../api/client";
import { NumberRow } from "../../ui/NumberRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { Tick } from "../../ui/Tick";

export type Wants = Schemas["Wants"];

export const NOTHING_SAID: Wants = {
  first: "per-season",
  years: 10,
  moves: false,
  both_faces: false,
  no_digging: false,
  heads_pass: false,
  wall: false,
  shed: true,
};

const FIRSTS: readonly { key: Wants["first"]; name: string }[] = [
  { key: "per-season", name: "what a season costs" },
  { key: "cost", name: "what it costs to buy" },
  { key: "strength", name: "the gust it holds to" },
  { key: "work", name: "how quickly it is built" },
  { key: "life", name: "how long its parts last" },
  { key: "own", name: "how much of it is in the shed" },
  { key: "looks", name: "how it looks" },
];
const REACHES = [
  { key: "", name: "whoever reaches" },
  { key: "2.05", name: "a grown person, on the ground" },
  { key: "2.2", name: "someone tall" },
  { key: "1.3", name: "a child, or someone seated" },
];
type Kept = "moves" | "both_faces" | "no_digging" | "heads_pass" | "wall" | "shed";
const KEPT: readonly { key: Kept; name: string }[] = [
  { key: "moves", name: "it moves to another bed" },
  { key: "both_faces", name: "both its faces are reached" },
  { key: "no_digging", name: "no holes are dug" },
  { key: "heads_pass", name: "one walks under it" },
  { key: "wall", name: "a wall, fence or pole stands there" },
  { key: "shed", name: "with what is free in the shed" },
];
const NUMBERS: readonly {
  key: "money" | "years" | "minutes" | "people";
  name: string;
  empty: string;
}[] = [
  { key: "money", name: "Money", empty: "no limit" },
  { key: "years", name: "Seasons", empty: "10" },
  { key: "minutes", name: "Minutes", empty: "no limit" },
  { key: "people", name: "People", empty: "any" },
];
const BOUNDS = { money: [0, 1e6], years: [1, 40], minutes: [10, 10_000], people: [1, 10] } as const;

interface Props {
  wants: Wants;
  currency: string;
  units: "metric" | "imperial";
  /** The gust of once in ten seasons on this bed. */
  gust: { value: number; text: string };
  /** The gust of a kept need, as written. */
  keptGust: string;
  /** Whether all of it is shown at once. */
  opened: boolean;
  onWant: (wants: Wants) => void;
}

/** What matters of a support: filled in so that it can be skipped. */
export function Wanted({ wants, currency, units, gust, keptGust, opened, onWant }: Props) {
  const [written, setWritten] = useState(keptGust);
  return (
    <details className="wanted" open={opened}>
      <summary>What matters</summary>
      <QuantityRow
        label="Holds to"
        text={wants.gust == null ? gust.text : written}
        value={wants.gust ?? gust.value}
        kind="speed"
        system={units}
        low={5}
        high={45}
        onValue={(value, text) => {
          setWritten(text);
          onWant({ ...wants, gust: value });
        }}
      />
      <p className="quiet hint">
        {wants.gust == null ? (
          "at the plant, once in ten seasons here"
        ) : (
          <button type="button" className="plain" onClick={() => onWant({ ...wants, gust: null })}>
            back to that of once in ten seasons
          </button>
        )}
      </p>
      <Pick
        label="First of all"
        value={wants.first}
        choices={FIRSTS}
        onPick={(first) => onWant({ ...wants, first: first as Wants["first"] })}
      />
      {NUMBERS.map(({ key, name, empty }) => (
        <NumberRow
          key={key}
          name={key === "money" ? `${name}, ${currency}` : name}
          empty={empty}
          bounds={BOUNDS[key]}
          value={wants[key] ?? null}
          onValue={(value) => {
            onWant({ ...wants, [key]: value ?? NOTHING_SAID[key] ?? null });
          }}
        />
      ))}
      <Pick
        label="Tied by"
        value={String(wants.reach ?? "")}
        choices={REACHES}
        onPick={(reach) => onWant({ ...wants, reach: reach === "" ? null : Number(reach) })}
      />
      {KEPT.map(({ key, name }) => (
        <Tick
          key={key}
          label={name}
          checked={wants[key]}
          onTick={(checked) => onWant({ ...wants, [key]: checked })}
        />
      ))}
    </details>
  );
}
