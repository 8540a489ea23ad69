import Button from "@mui/material/Button";
import { Fragment, useState } from "react";

import type { Schemas } from "../../api/client";
import type { EntryChange, EntryRow, Log, LogKind } from "../../api/log";
import { useSession } from "../../api/queries";
import { NumberRow } from "../../ui/NumberRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { useAfterReading } from "../../ui/useAfterReading";
import { useScale } from "../../ui/useScale";
import { say } from "../../texts/say";

interface Props {
  log: Log;
  kind: LogKind;
  /** Key of the support or bed that is meant at first. */
  about: string;
  row: EntryRow | null;
  onSave: (change: EntryChange) => void;
  onCancel: () => void;
  onRemove?: () => void;
}

type Fields = Partial<Record<keyof EntryChange, string | number | null>>;

const COUNTED: Record<string, readonly [number, number]> = {
  count: [1, 100_000],
  minutes: [1, 6000],
  waits: [0, 120],
  cost: [0, 1e6],
};
const FOUND = ["stood", "leans", "slack", "torn", "fell"] as const;

/** An entry by its fields: what its kind asks for, the place, the day, a note. */
export function LogForm({ log, kind, about, row, onSave, onCancel, onRemove }: Props) {
  const first = row?.fields;
  const [place, setPlace] = useState(first?.structure ?? first?.bed ?? about);
  const [on, setOn] = useState<string>(first?.on ?? log.today);
  const [note, setNote] = useState(first?.note ?? "");
  const [fields, setFields] = useState<Fields>(() =>
    Object.fromEntries(
      kind.fields.map(({ name }) => [
        name,
        (name === "member" ? row?.written[name] : first?.[name as keyof typeof first]) ?? null,
      ]),
    ),
  );
  const session = useSession();
  const scale = useScale(log.id);
  const [hung, setHung] = useState<Schemas["ScaleOut"] | null>(null);
  const [said, setSaid] = useState("");
  const [asked, setAsked] = useState(false);
  const put = (name: string, value: string | number | null) =>
    setFields((all) => ({ ...all, [name]: value }));
  const at = log.places.find((each) => each.key === place);
  const crops = at?.crops.length ? at.crops : [...new Set(log.places.flatMap((each) => each.crops))];
  const only = kind.key === "harvest" && at?.crops.length === 1 ? at.crops[0] : null;
  const crop = fields.crop ?? only ?? null;
  const empty = (name: string) => (fields[name as keyof Fields] ?? "") === "";
  const called = (name: string) => kind.fields.find((field) => field.name === name)?.label ?? name;
  const missing = [
    ...(kind.of_support && at?.support !== true ? [say("log.place")] : []),
    ...kind.fields
      .filter(({ name, needed }) => needed && (name === "crop" ? crop === null : empty(name)))
      .map(({ label }) => label),
    ...(kind.either.length > 0 && kind.either.every(empty)
      ? [kind.either.map(called).join(` ${say("log.or")} `)]
      : []),
    ...(kind.key === "note" && note.trim() === "" ? [say("log.note")] : []),
  ];
  const save = () => {
    const own = Object.fromEntries(
      kind.fields
        .filter(({ name }) => name !== "note")
        .map(({ name }) => [
          name,
          name === "what" || name === "member"
            ? (fields[name] ?? "")
            : (fields[name as keyof Fields] ?? null),
        ]),
    ) as EntryChange;
    onSave({
      kind: kind.key as NonNullable<EntryChange["kind"]>,
      on,
      note,
      ...own,
      ...(kind.fields.some(({ name }) => name === "crop") && { crop: crop as string | null }),
      structure: at?.support ? at.key : null,
      bed: at && !at.support ? at.key : null,
    });
  };
  const weigh = async () => {
    const read = await scale.read();
    if (typeof read === "string") {
      setSaid(read);
      return;
    }
    put("mass", read.mass);
    setHung(read);
    setSaid(say("log.onTheScale", { name: read.name, text: read.mass_text }));
  };
  const submit = useAfterReading(() => {
    if (missing.length === 0) save();
    else setAsked(true);
  });
  return (
    <form className="logform" aria-label={kind.verb} onSubmit={(event) => void submit(event)}>
      <Pick
        label={say("log.place")}
        value={place}
        choices={[
          ...(kind.of_support ? [] : [{ key: "", name: say("log.theGarden") }]),
          ...log.places
            .filter((each) => each.support || !kind.of_support)
            .map((each) => ({ key: each.key, name: each.name })),
        ]}
        onPick={setPlace}
      />
      {kind.fields.map((field) => {
        const { name, label, quantity } = field;
        const value = fields[name as keyof Fields] ?? null;
        if (quantity)
          return (
            <Fragment key={name}>
              <QuantityRow
                key={hung?.mass_text ?? ""}
                label={label}
                kind={quantity as Schemas["QuantityIn"]["kind"]}
                system={log.units}
                value={typeof value === "number" ? value : Number.NaN}
                text={(name === "mass" && hung?.mass_text) || (row?.written[name] ?? "")}
                onValue={(read) => put(name, read)}
              />
              {name === "mass" && session.data?.scale && (
                <p className="actions">
                  <Button onClick={() => void weigh()} disabled={scale.reading}>
                    {scale.reading ? say("common.loading") : say("build.readTheScale")}
                  </Button>
                  <span role="status">{said}</span>
                </p>
              )}
            </Fragment>
          );
        if (name === "crop")
          return (
            <Pick
              key={name}
              label={label}
              value={typeof crop === "string" ? crop : ""}
              choices={[
                ...(kind.key === "harvest" && crop ? [] : [{ key: "", name: say("log.notSaid") }]),
                ...log.crops
                  .filter(([key]) => crops.includes(key))
                  .map(([key, called]) => ({ key, name: called })),
              ]}
              onPick={(key) => put(name, key || null)}
            />
          );
        if (name === "found")
          return (
            <Pick
              key={name}
              label={label}
              value={typeof value === "string" ? value : ""}
              choices={[
                { key: "", name: say("log.notSaid") },
                ...FOUND.map((key) => ({ key, name: say(`season.${key}`) })),
              ]}
              onPick={(key) => put(name, key || null)}
            />
          );
        if (name in COUNTED)
          return (
            <NumberRow
              key={name}
              name={label}
              empty=""
              bounds={COUNTED[name] ?? [0, 1e6]}
              value={typeof value === "number" ? value : null}
              onValue={(read) => put(name, read)}
            />
          );
        if (name !== "what" && name !== "member") return null;
        return (
          <label key={name} className="row">
            <span className="label">{label}</span>
            <input
              className="input"
              maxLength={name === "what" ? 120 : 80}
              placeholder={name === "member" ? say("log.post3") : undefined}
              value={typeof value === "string" ? value : ""}
              onChange={(event) => put(name, event.target.value)}
            />
          </label>
        );
      })}
      <label className="row">
        <span className="label">{say("log.day")}</span>
        <input
          className="input"
          type="date"
          value={on}
          max={log.today}
          required
          onChange={(event) => setOn(event.target.value)}
        />
      </label>
      <label className="row">
        <span className="label">{say("log.note")}</span>
        <input
          className="input"
          maxLength={400}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      {asked && missing.length > 0 && (
        <p role="alert" className="refusal">
          {say("log.stillMissing", { what: missing.join(", ") })}
        </p>
      )}
      <p className="actions">
        <Button type="submit" variant="contained">
          {say("log.save")}
        </Button>
        <Button onClick={onCancel}>{say("common.cancel")}</Button>
        {onRemove && <Button onClick={onRemove}>{say("log.removeThisEntry")}</Button>}
      </p>
    </form>
  );
}
