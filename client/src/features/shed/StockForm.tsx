import Button from "@mui/material/Button";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { useAfterReading } from "../../ui/useAfterReading";
import { say } from "../../texts/say";

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
  length: { name: say("shed.lengthOfEach"), kind: "length" },
  width: { name: say("shed.width"), kind: "wire" },
  depth: { name: say("shed.depthOrATubesWall"), kind: "wire" },
  thickness: { name: say("shed.thickness"), kind: "wire" },
  height: { name: say("shed.height"), kind: "length" },
};
const START = {
  metric: { value: 2.4, text: "2.40 m" },
  imperial: { value: 2.4384, text: "8 ft" },
} as const;
const CONDITIONS = [
  { key: "good", name: say("shed.good") },
  { key: "fair", name: say("shed.fairWornButSound") },
  { key: "poor", name: say("shed.poorCrackedBentOrRustedIn") },
];
const SURES = [
  { key: "known", name: say("shed.ourEstimate") },
  { key: "seen", name: say("shed.lookedAt") },
  { key: "guessed", name: say("shed.aGuess") },
];
const SHARES = [
  { key: "1", name: say("shed.allOfIt") },
  { key: "0.8", name: say("shed.fourFifths") },
  { key: "0.6", name: say("shed.threeFifths") },
  { key: "0.4", name: say("shed.twoFifths") },
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
      aria-label={row ? row.fields.name : say("shed.somethingNewForTheShed")}
      onSubmit={(event) => void submit(event)}
    >
      <div className="columns">
        <div>
          <Pick label={say("shed.kind")} value={now.table} choices={catalogue.stocked} onPick={setTable} />
          <Pick
            label={say("shed.mostLike")}
            value={now.item}
            choices={rows}
            onPick={(item) => setNow((all) => ({ ...all, item }))}
          />
          <label className="row">
            <span className="label">{say("shed.called")}</span>
            <input
              className="input"
              value={name}
              maxLength={120}
              placeholder={like?.name ?? ""}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <QuantityRow
            label={say("shed.howMany")}
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
            label={say("shed.seasonsOld")}
            text={String(now.age ?? 0)}
            value={now.age ?? 0}
            kind="count"
            system={units}
            low={0}
            high={60}
            onValue={(age) => setNow((all) => ({ ...all, age }))}
          />
          <Pick
            label={say("shed.condition")}
            value={now.condition ?? "good"}
            choices={CONDITIONS}
            onPick={(condition) => setNow((all) => ({ ...all, condition: condition as "good" }))}
          />
          <label className="row">
            <span className="label">{say("shed.inUseFor")}</span>
            <input
              className="input"
              value={now.in_use ?? ""}
              maxLength={120}
              placeholder={say("shed.notInUse")}
              onChange={(event) => setNow((all) => ({ ...all, in_use: event.target.value }))}
            />
          </label>
          <details className="wanted">
            <summary>{say("shed.aShapeAndStrengthOfIts")}</summary>
            {measures.filter((each) => each !== "length").map((each) => measure(each))}
            <Pick
              label={say("shed.strengthComparedWithNew")}
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
              label={say("shed.howSure")}
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
        <Button type="submit">{row ? say("shed.keep") : say("shed.addToTheShed")}</Button>
        <button type="button" className="plain" onClick={onClose}>
          {say("common.cancel")}
        </button>
        {onRemove && (
          <button type="button" className="plain" onClick={onRemove}>
            {say("shed.deleteItFromTheShed")}
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
        text={value === null ? say("shed.ourEstimate") : (texts[of] ?? "")}
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
