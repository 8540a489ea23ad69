import { useState } from "react";
import { useNavigate } from "react-router";

import { type Draft, type OptionField, type Problem, type Report, type Schemas } from "../../api/client";
import { useShed } from "../../api/queries";
import { askDown, editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { Pick } from "../../ui/Pick";
import { withAnother, MOST_PLANTINGS } from "./another";
import { CoverFields } from "./CoverFields";
import { FromShed } from "./FromShed";
import { Measured } from "./Measured";
import { OptionCurve } from "./OptionCurve";
import { PlantingFields } from "./PlantingFields";
import { putAt } from "./putAt";
import type { ChangeDraft } from "./useDraft";
import { SizingPanel } from "./SizingPanel";
import { sentence } from "../../ui/sentence";
import { Wishes } from "./Wishes";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  catalogue: Schemas["Catalogue"];
  family: Schemas["FamilyOut"];
  draft: Draft;
  report: Report | null;
  problems: Problem[];
  onChange: ChangeDraft;
  onRelease: () => void;
}

/**
 * Everything that can be decided, in one ruled list; every control answers while it is held, and says what
 * its side gains.
 */
export function Controls({
  structure,
  catalogue,
  family,
  draft,
  report,
  problems,
  onChange,
  onRelease,
}: Props) {
  const rename = (name: string) => onChange((now) => ({ ...now, name }), "name");
  const asked = (field: OptionField): boolean => {
    const parent = family.options.find((each) => each.name === field.when_option);
    return !parent || (asked(parent) && field.when_is.includes(String(draft.options[parent.name])));
  };
  const shown = family.options.filter(asked);
  const [moves, setMoves] = useState<string | null>(null);
  const shed = useShed(structure.garden, structure.revision, structure.units);
  const groups = [...new Set(shown.map((field) => field.group))];
  return (
    <div className="ledger">
      <label className="row">
        <span className="label">{say("bench.name")}</span>
        <input
          className="input"
          value={draft.name}
          maxLength={120}
          onChange={(event) => event.target.value !== "" && rename(event.target.value)}
          onBlur={onRelease}
        />
      </label>
      {draft.plantings.map((planting) => (
        <PlantingFields
          key={planting.key}
          planting={planting}
          structure={structure}
          spacing={report?.written[`plantings.${planting.key}.spacing`] ?? ""}
          planted={report?.planted.find((each) => each.planting === planting.key)}
          catalogue={catalogue}
          onChange={onChange}
          onRelease={onRelease}
          onRemove={
            draft.plantings.length > 1
              ? () =>
                  onChange((now) => ({
                    ...now,
                    plantings: now.plantings.filter((each) => each.key !== planting.key),
                  }))
              : null
          }
        />
      ))}
      {draft.plantings.length < MOST_PLANTINGS && (
        <button type="button" className="plain" onClick={() => onChange(withAnother)}>
          {say("bench.addAnotherCrop")}
        </button>
      )}
      <CoverFields draft={draft} catalogue={catalogue} onChange={onChange} />
      <h2>{say("common.bed")}</h2>
      <Pick
        label={say("bench.soil")}
        value={draft.soil}
        choices={catalogue.soils}
        onPick={(soil) => onChange((now) => ({ ...now, soil }))}
      />
      <Pick
        label={say("bench.exposure")}
        value={draft.exposure}
        choices={catalogue.exposures}
        onPick={(exposure) => onChange((now) => ({ ...now, exposure }))}
      />
      <Wishes
        structure={structure}
        wishes={family.wishes}
        draft={draft}
        onTake={(changes) => onChange((now) => ({ ...now, options: { ...now.options, ...changes } }))}
      />
      <details className="wanted">
        <summary>{say("bench.sizeTheWholeSupport")}</summary>
        <SizingPanel
          structure={structure}
          draft={draft}
          options={shown}
          onFix={(changes, had) =>
            onChange((now) => ({
              ...now,
              options: { ...now.options, ...changes },
              taken: had,
            }))
          }
        />
      </details>
      <FromShed
        structure={structure}
        draft={draft}
        report={report}
        onTaken={(had) => onChange((now) => ({ ...now, taken: had }))}
      />
      {groups.map((group) => (
        <div key={group} role="group" aria-label={group}>
          <h2>{group}</h2>
          {shown
            .filter((field) => field.group === group)
            .map((field) => (
              <OptionRow
                key={field.name}
                field={field}
                value={draft.options[field.name]}
                text={report?.written[field.name] ?? ""}
                items={itemsOf(
                  field,
                  String(draft.options[field.name]),
                  report,
                  catalogue,
                  shed.data?.rows ?? [],
                )}
                system={structure.units}
                problem={problems.find((problem) => problem.path.endsWith(`options.${field.name}`))}
                onValue={(value, grip) => onChange((now) => putAt(now, `options.${field.name}`, value), grip)}
                onRelease={onRelease}
                moves={moves === field.name}
                onMoves={() => setMoves(moves === field.name ? null : field.name)}
                structure={structure}
                draft={draft}
              />
            ))}
        </div>
      ))}
      <TakeDown structure={structure} name={draft.name} />
    </div>
  );
}

interface Item {
  key: string;
  name: string;
}

/** What an option may be of a table: its rows, what is free in the shed, and what it is now. */
function itemsOf(
  field: OptionField,
  now: string,
  report: Report | null,
  catalogue: Schemas["Catalogue"],
  shed: readonly Schemas["StockRow"][],
): Item[] {
  const serves = (roles: readonly string[]) => !field.role || roles.includes(field.role);
  const items: Item[] = (catalogue.tables[field.table] ?? []).filter((row) => serves(row.roles));
  const known = new Set(items.map((item) => item.key));
  for (const row of shed)
    if (row.planned && row.fields.table === field.table && serves(row.roles) && !known.has(row.item)) {
      known.add(row.item);
      items.push({ key: row.item, name: `${row.fields.name} (shed)` });
    }
  if (field.kind === "item" && !known.has(now))
    items.push({ key: now, name: report?.written[field.name] ?? now });
  return items;
}

interface RowProps {
  field: OptionField;
  value: unknown;
  text: string;
  items: Item[];
  system: "metric" | "imperial";
  problem: Problem | undefined;
  onValue: (value: unknown, grip?: string) => void;
  onRelease: () => void;
  moves: boolean;
  onMoves: () => void;
  structure: Schemas["StructureOut"];
  draft: Draft;
}

function OptionRow({
  field,
  value,
  text,
  items,
  system,
  problem,
  onValue,
  onRelease,
  moves,
  onMoves,
  structure,
  draft,
}: RowProps) {
  const { label } = field;
  const gain = field.choices.find((choice) => choice.key === String(value))?.gain;
  return (
    <div className="option">
      {field.kind === "item" && <Pick label={label} value={String(value)} choices={items} onPick={onValue} />}
      {field.kind === "choice" && (
        <Pick label={label} value={String(value)} choices={field.choices} onPick={onValue} />
      )}
      {field.kind === "flag" && (
        <Pick
          label={label}
          value={String(value)}
          choices={field.choices}
          onPick={(key) => onValue(key === "true")}
        />
      )}
      {(field.kind === "length" ||
        field.kind === "count" ||
        field.kind === "force" ||
        field.kind === "angle" ||
        field.kind === "line_load") && (
        <Measured
          label={label}
          kind={field.kind}
          low={field.low ?? 0}
          high={field.high ?? 1}
          step={field.step}
          value={Number(value)}
          text={text}
          system={system}
          grip={field.name}
          onValue={onValue}
          onRelease={onRelease}
        />
      )}
      <button
        type="button"
        className="moved"
        aria-expanded={moves}
        aria-label={say("bench.effectOfOnStrengthAndCost", { label })}
        title={say("bench.effectOnStrengthAndCost")}
        onClick={onMoves}
      >
        <svg width={18} height={14} aria-hidden="true">
          <path d="M2 12C6 11 7 3 16 2" fill="none" stroke="currentColor" strokeWidth={1.8} />
        </svg>
      </button>
      {moves && (
        <OptionCurve
          structure={structure}
          draft={draft}
          option={field.name}
          onValue={(next) => onValue(next)}
        />
      )}
      {gain && <p className="gain">{gain}</p>}
      {field.help && <p className="help">{field.help}</p>}
      {problem && (
        <p role="alert" className="refusal">
          {say("bench.cannotBeUsed", {
            label: field.label,
            given: problem.given,
            allowed: sentence(problem.allowed),
          })}
        </p>
      )}
    </div>
  );
}

/**
 * Taking a structure down puts what is worth keeping into the shed, older; one that was never built is only
 * removed. Either asks once, where the hand is.
 */
function TakeDown({ structure, name }: { structure: Schemas["StructureOut"]; name: string }) {
  const [asked, setAsked] = useState<"down" | "remove" | null>(null);
  const [seasons, setSeasons] = useState("1");
  const navigate = useNavigate();
  const stood = Number(seasons);
  const wrong = !(Number.isInteger(stood) && stood >= 0 && stood <= 60);
  const leave = () => navigate(`/gardens/${structure.garden}`);
  const remove = async () => {
    const edit = { kind: "structure" as const, act: "remove" as const, key: structure.key, change: {} };
    // the bench is left first: what is removed is asked for no more
    await leave();
    queue.put(editsWrite(structure.garden, [edit], say("bench.removed", { name })));
  };
  const takeDown = async () => {
    await leave();
    await askDown(structure.garden, structure.id, stood, say("bench.takenDown", { name })).catch(
      () => undefined,
    );
  };
  const keep = (
    <button type="button" className="plain" onClick={() => setAsked(null)}>
      {say("common.cancel")}
    </button>
  );
  return (
    <div className="takedown">
      {asked === "remove" && (
        <p>
          {say("bench.takeOffTheBedForGood", { name })}{" "}
          <button type="button" className="plain" onClick={() => void remove()}>
            {say("bench.removeIt")}
          </button>
          {keep}
        </p>
      )}
      {asked === "down" && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (!wrong) void takeDown();
          }}
        >
          <label className="row">
            <span className="label">{say("bench.seasonsInUse")}</span>
            <input
              className="input"
              inputMode="numeric"
              value={seasons}
              aria-invalid={wrong}
              onChange={(event) => setSeasons(event.target.value)}
            />
          </label>
          {wrong && (
            <p role="alert" className="refusal">
              {say("bench.seasonsInUseCannotBeUsed", { seasons })}
            </p>
          )}
          <button type="submit" className="plain" disabled={wrong}>
            {say("bench.takeDownPartsGoToThe")}
          </button>
          {keep}
        </form>
      )}
      {asked === null && (
        <p>
          <button type="button" className="plain" onClick={() => setAsked("down")}>
            {say("bench.takeDownThisSupport")}
          </button>
          <button type="button" className="plain" onClick={() => setAsked("remove")}>
            {say("bench.removeFromTheBed")}
          </button>
        </p>
      )}
    </div>
  );
}
