import Slider from "@mui/material/Slider";

import type { Draft, OptionField, Planting, Problem, Report, Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";
import { QuantityField } from "../../ui/QuantityField";

interface Props {
  structure: Schemas["StructureOut"];
  catalogue: Schemas["Catalogue"];
  draft: Draft;
  report: Report | null;
  problems: Problem[];
  onChange: (draft: Draft, grip?: string) => void;
  onRelease: () => void;
}

/** Everything that can be decided, in one ruled list; every control answers while it is held. */
export function Controls({ structure, catalogue, draft, report, problems, onChange, onRelease }: Props) {
  const family = catalogue.families.find((each) => each.key === structure.family);
  const set = (name: string, value: unknown, grip?: string) => onChange({ ...draft, options: { ...draft.options, [name]: value } }, grip);
  const shown = (field: OptionField) => !field.when_option || draft.options[field.when_option] === field.when_is;
  return (
    <>
      <h2>What grows</h2>
      {draft.plantings.map((planting, index) => (
        <PlantingFields key={index} index={index} planting={planting} structure={structure} catalogue={catalogue} draft={draft} onChange={onChange} onRelease={onRelease} />
      ))}
      <div className="group">
        <h2>Where it stands</h2>
        <Pick label="Soil of the bed" value={draft.soil} choices={catalogue.soils} onPick={(soil) => onChange({ ...draft, soil })} />
        <Pick label="Wind exposure of the bed" value={draft.exposure} choices={catalogue.exposures} onPick={(exposure) => onChange({ ...draft, exposure })} />
      </div>
      <div className="group">
        <h2>How it is built</h2>
        {family?.options.filter(shown).map((field) => {
          const value = draft.options[field.name];
          const problem = problems.find((p) => p.path.endsWith(`options.${field.name}`));
          return (
            <div key={field.name} className="optrow">
              <OptionControl field={field} value={value} text={report?.written[field.name] ?? ""} catalogue={catalogue} system={structure.units} onValue={(next, grip) => set(field.name, next, grip)} onRelease={onRelease} />
              {problem && (
                <p role="alert" className="refusal">
                  {`${problem.given} is refused: ${problem.allowed}`}
                </p>
              )}
            </div>
          );
        })}
      </div>
    </>
  );
}

interface OptionProps {
  field: OptionField;
  value: unknown;
  text: string;
  catalogue: Schemas["Catalogue"];
  system: "metric" | "imperial";
  onValue: (value: unknown, grip?: string) => void;
  onRelease: () => void;
}

function OptionControl({ field, value, text, catalogue, system, onValue, onRelease }: OptionProps) {
  if (field.kind === "item") {
    const rows = (catalogue.tables[field.table] ?? []).filter((row) => !field.role || row.roles.includes(field.role));
    return <Pick label={field.label} value={String(value)} choices={rows} onPick={onValue} />;
  }
  if (field.kind === "choice") return <Pick label={field.label} value={String(value)} choices={field.choices} onPick={onValue} />;
  if (field.kind === "flag") return <Pick label={field.label} value={String(value)} choices={field.choices} onPick={(key) => onValue(key === "true")} />;
  return <Measured label={field.label} kind={field.kind} low={field.low ?? 0} high={field.high ?? 1} step={field.step} value={Number(value)} text={text} system={system} grip={field.name} onValue={onValue} onRelease={onRelease} />;
}

interface MeasuredProps {
  label: string;
  kind: string;
  low: number;
  high: number;
  step: number;
  value: number;
  text: string;
  system: "metric" | "imperial";
  grip: string;
  onValue: (value: number, grip?: string) => void;
  onRelease: () => void;
}

function Measured({ label, kind, low, high, step, value, text, system, grip, onValue, onRelease }: MeasuredProps) {
  const round = (v: number) => Number(v.toFixed(4));
  return (
    <>
      <div className="head">
        <span className="label" aria-hidden="true">
          {label}
        </span>
        <QuantityField label={label} hideLabel text={text} value={value} kind={kind} system={system} low={low} high={high} step={step} onValue={(v) => onValue(round(v))} />
      </div>
      <Slider
        aria-label={`${label}, slide`}
        value={value}
        min={low}
        max={high}
        step={step}
        onChange={(_, v) => onValue(round(v), grip)}
        onChangeCommitted={onRelease}
      />
    </>
  );
}

interface PlantingProps {
  index: number;
  planting: Planting;
  structure: Schemas["StructureOut"];
  catalogue: Schemas["Catalogue"];
  draft: Draft;
  onChange: (draft: Draft, grip?: string) => void;
  onRelease: () => void;
}

function PlantingFields({ index, planting, structure, catalogue, draft, onChange, onRelease }: PlantingProps) {
  const set = (change: Partial<Planting>, grip?: string) => onChange({ ...draft, plantings: draft.plantings.map((each, i) => (i === index ? { ...each, ...change } : each)) }, grip);
  const metric = structure.units === "metric";
  const spacing = metric ? (planting.spacing < 0.0995 ? `${(planting.spacing * 1000).toFixed(0)} mm` : `${planting.spacing.toFixed(2)} m`) : `${(planting.spacing / 0.0254).toFixed(1)} in`;
  return (
    <div>
      <Pick label="Crop" value={planting.crop} choices={catalogue.crops} onPick={(crop) => set({ crop })} />
      <div className="optrow">
        <Measured label="Plants" kind="count" low={1} high={Math.max(60, planting.count)} step={1} value={planting.count} text={String(planting.count)} system={structure.units} grip={`count${index}`} onValue={(count, grip) => set({ count: Math.round(count) }, grip)} onRelease={onRelease} />
      </div>
      <div className="optrow">
        <Measured label="Plant spacing" kind="length" low={0.03} high={Math.max(1.5, planting.spacing)} step={0.01} value={planting.spacing} text={spacing} system={structure.units} grip={`spacing${index}`} onValue={(value, grip) => set({ spacing: value }, grip)} onRelease={onRelease} />
      </div>
      <Pick label="Planted on the" value={planting.side} choices={Object.entries(structure.sides).map(([key, name]) => ({ key, name }))} onPick={(side) => set({ side: side as "left" })} />
      <Pick
        label="Pruning"
        value={planting.training}
        choices={[
          { key: "pruned", name: "pruned" },
          { key: "free", name: "left to grow" },
        ]}
        onPick={(training) => set({ training: training as "free" })}
      />
      <PlantedOn value={planting.planted} onDate={(planted) => set({ planted })} />
    </div>
  );
}

const MONTHS = ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];
const two = (n: number) => String(n).padStart(2, "0");

function PlantedOn({ value, onDate }: { value: string; onDate: (date: string) => void }) {
  const [month = 1, day = 1] = value.split("-").map(Number);
  const last = new Date(2001, month, 0).getDate();
  const days = Array.from({ length: last }, (_, i) => ({ key: two(i + 1), name: String(i + 1) }));
  const put = (m: number, d: number) => onDate(`${two(m)}-${two(Math.min(d, new Date(2001, m, 0).getDate()))}`);
  return (
    <div style={{ display: "grid", gridTemplateColumns: "64px 1fr", gap: 10 }}>
      <Pick label="Planted on" value={two(day)} choices={days} onPick={(key) => put(month, Number(key))} />
      <Pick label="in" value={two(month)} choices={MONTHS.map((name, i) => ({ key: two(i + 1), name }))} onPick={(key) => put(Number(key), day)} />
    </div>
  );
}
