import Button from "@mui/material/Button";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { useAfterReading } from "../../ui/useAfterReading";

type Stock = Schemas["Stock"];
export type StockDraft = Schemas["StockChange"] & { name: string };
type MeasureName = "width" | "depth" | "thickness" | "height" | "length";

interface Props {
  catalogue: Schemas["Catalogue"];
  units: "metric" | "imperial";
  row: Schemas["StockRow"] | null;
  refusal: string;
  onKeep: (change: StockDraft) => void;
  onRemove: (() => void) | undefined;
  onClose: () => void;
}

const MEASURES: Record<MeasureName, { name: string; kind: "length" | "wire" }> = {
  length: { name: "Length of each", kind: "length" },
  width: { name: "Width", kind: "wire" },
  depth: { name: "Depth, or a tube’s wall", kind: "wire" },
  thickness: { name: "Thickness", kind: "wire" },
  height: { name: "Height", kind: "length" },
};
const START = {
  metric: { value: 2.4, text: "2.40 m" },
  imperial: { value: 2.4384, text: "8 ft" },
} as const;
const CONDITIONS = [
  { key: "good", name: "good" },
  { key: "fair", name: "fair: worn, but sound" },
  { key: "poor", name: "poor: cracked, bent or rusted in places" },
];
const SURES = [
  { key: "known", name: "our estimate" },
  { key: "seen", name: "looked at" },
  { key: "guessed", name: "a guess" },
];
const SHARES = [
  { key: "1", name: "all of it" },
  { key: "0.8", name: "four fifths" },
  { key: "0.6", name: "three fifths" },
  { key: "0.4", name: "two fifths" },
];
const LIKE: Record<string, string> = { posts: "pole_hazel_25" };

/** Something for the shed: what it is like, how long, how many; the rest is filled in. */
export function StockForm({ catalogue, units, row, refusal, onKeep, onRemove, onClose }: Props) {
  const first =
    catalogue.tables.posts?.find((each) => each.key === LIKE.posts) ?? catalogue.tables.posts?.[0];
  const [now, setNow] = useState<Partial<Stock> & { table: Stock["table"]; item: string }>(
    row?.fields ?? { table: "posts", item: first?.key ?? "", length: START[units].value, count: 1 },
  );
  const [name, setName] = useState(row?.fields.name ?? "");
  const [texts, setTexts] = useState<Record<string, string>>(row?.written ?? { length: START[units].text });
  const measures = (catalogue.measures[now.table] ?? []) as MeasureName[];
  const rows = catalogue.tables[now.table] ?? [];
  const like = rows.find((each) => each.key === now.item);
  const setTable = (table: string) => {
    const bare = Object.fromEntries(Object.keys(MEASURES).map((key) => [key, null]));
    const next = catalogue.tables[table]?.[0]?.key ?? "";
    const hasLength = catalogue.measures[table]?.includes("length") ?? false;
    setNow((all) => ({
      ...all,
      ...bare,
      ...(hasLength && { length: all.length ?? START[units].value }),
      table: table as Stock["table"],
      item: LIKE[table] ?? next,
    }));
  };
  const submit = useAfterReading(() => {
    const rest = Object.fromEntries(Object.entries(now).filter(([field]) => field !== "key"));
    onKeep({ ...rest, name: name.trim() || (like?.name ?? "something") });
  });
  return (
    <form
      className="stockform"
      aria-label={row ? row.fields.name : "Something new for the shed"}
      onSubmit={(event) => void submit(event)}
    >
      <div className="columns">
        <div>
          <Pick label="Kind" value={now.table} choices={catalogue.stocked} onPick={setTable} />
          <Pick
            label="Most like"
            value={now.item}
            choices={rows}
            onPick={(item) => setNow((all) => ({ ...all, item }))}
          />
          <label className="row">
            <span className="label">Called</span>
            <input
              className="input"
              value={name}
              maxLength={120}
              placeholder={like?.name ?? ""}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <QuantityRow
            label="How many"
            text={String(now.count ?? 1)}
            value={now.count ?? 1}
            kind="count"
            system={units}
            low={0}
            high={1000}
            onValue={(count) => setNow((all) => ({ ...all, count }))}
          />
          {measures.filter((each) => each === "length").map((each) => measure(each))}
        </div>
        <div>
          <QuantityRow
            label="Seasons old"
            text={String(now.age ?? 0)}
            value={now.age ?? 0}
            kind="count"
            system={units}
            low={0}
            high={60}
            onValue={(age) => setNow((all) => ({ ...all, age }))}
          />
          <Pick
            label="Condition"
            value={now.condition ?? "good"}
            choices={CONDITIONS}
            onPick={(condition) => setNow((all) => ({ ...all, condition: condition as "good" }))}
          />
          <label className="row">
            <span className="label">In use for</span>
            <input
              className="input"
              value={now.in_use ?? ""}
              maxLength={120}
              placeholder="not in use"
              onChange={(event) => setNow((all) => ({ ...all, in_use: event.target.value }))}
            />
          </label>
          <details className="wanted">
            <summary>A shape and strength of its own</summary>
            {measures.filter((each) => each !== "length").map((each) => measure(each))}
            <Pick
              label="Strength compared with new"
              value={String(now.strength ?? 1)}
              choices={
                SHARES.some((each) => Number(each.key) === (now.strength ?? 1))
                  ? SHARES
                  : [
                      ...SHARES,
                      { key: String(now.strength), name: `${Math.round(100 * (now.strength ?? 1))} %` },
                    ]
              }
              onPick={(strength) => setNow((all) => ({ ...all, strength: Number(strength) }))}
            />
            <Pick
              label="How sure"
              value={now.sure ?? "known"}
              choices={SURES}
              onPick={(sure) => setNow((all) => ({ ...all, sure: sure as "seen" }))}
            />
          </details>
        </div>
      </div>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
      <p className="actions">
        <Button type="submit">{row ? "Keep" : "Add to the shed"}</Button>
        <button type="button" className="plain" onClick={onClose}>
          Cancel
        </button>
        {onRemove && (
          <button type="button" className="plain" onClick={onRemove}>
            Delete it from the shed
          </button>
        )}
      </p>
    </form>
  );

  function measure(of: MeasureName) {
    const { name: label, kind } = MEASURES[of];
    const value = now[of] ?? null;
    const bounds = catalogue.bounds[`stock.${of}`];
    return (
      <QuantityRow
        key={`${now.table}-${of}`}
        label={label}
        text={value === null ? "our estimate" : (texts[of] ?? "")}
        value={value ?? 0}
        kind={kind}
        system={units}
        low={bounds?.low}
        high={bounds?.high}
        onValue={(next, text) => {
          setNow((all) => ({ ...all, [of]: next }));
          setTexts((all) => ({ ...all, [of]: text }));
        }}
      />
    );
  }
}
