import type { Planting, Schemas } from "../../api/client";
import { DayOfYear } from "../../ui/DayOfYear";
import { Pick } from "../../ui/Pick";
import { Measured } from "./Measured";
import { putAt } from "./putAt";
import type { ChangeDraft } from "./useDraft";
import { say } from "../../texts/say";

interface Props {
  planting: Planting;
  structure: Schemas["StructureOut"];
  spacing: string;
  planted: Schemas["PlantedReport"] | undefined;
  catalogue: Schemas["Catalogue"];
  onChange: ChangeDraft;
  onRelease: () => void;
  onRemove: (() => void) | null;
}

const RAISED = [
  { key: "usual", name: say("bench.theUsualWay") },
  { key: "sown", name: say("bench.sownInPlace") },
  { key: "potted", name: say("bench.inPotsFirst") },
];
const PRUNING = [
  { key: "pruned", name: say("bench.pruned") },
  { key: "free", name: say("bench.leftToGrow") },
];

/** One planting: which crop, how many, how far apart, on which side, trained how, planted when. */
export function PlantingFields({
  planting,
  structure,
  spacing,
  planted,
  catalogue,
  onChange,
  onRelease,
  onRemove,
}: Props) {
  const set = (name: keyof Planting, value: unknown, grip?: string) =>
    onChange((now) => putAt(now, `plantings.${planting.key}.${name}`, value), grip);
  const allowed = (name: string) => catalogue.bounds[`planting.${name}`] ?? { low: 0, high: 0 };
  return (
    <div role="group" aria-label={say("bench.plants")}>
      <h2>{say("bench.plants")}</h2>
      <Pick
        label={say("bench.crop")}
        value={planting.crop}
        choices={catalogue.crops}
        onPick={(crop) => set("crop", crop)}
      />
      <Measured
        label={say("bench.plants")}
        kind="count"
        {...allowed("count")}
        reach={60}
        step={1}
        value={planting.count}
        text={String(planting.count)}
        system={structure.units}
        grip={`count ${planting.key}`}
        onValue={(count, grip) => set("count", Math.round(count), grip)}
        onRelease={onRelease}
      />
      <Measured
        label={say("bench.spacing")}
        kind="length"
        {...allowed("spacing")}
        reach={1.5}
        step={0.01}
        value={planting.spacing}
        text={spacing}
        system={structure.units}
        grip={`spacing ${planting.key}`}
        onValue={(value, grip) => set("spacing", value, grip)}
        onRelease={onRelease}
      />
      <Pick
        label={say("bench.side")}
        value={planting.side}
        choices={Object.entries(structure.sides).map(([key, name]) => ({ key, name }))}
        onPick={(side) => set("side", side)}
      />
      <Pick
        label={say("bench.pruning")}
        value={planting.training}
        choices={PRUNING}
        onPick={(training) => set("training", training)}
      />
      <Pick
        label={say("bench.raised")}
        value={planting.raised}
        choices={RAISED}
        onPick={(raised) => set("raised", raised)}
      />
      <DayOfYear
        label={say("bench.plantedOn")}
        value={planting.planted}
        onDate={(planted) => set("planted", planted)}
      />
      {planted && (
        <Pick
          label={say("bench.plantedInYear")}
          value={String(planting.year ?? planted.on.slice(0, 4))}
          choices={planted.years.map((year) => ({ key: String(year), name: String(year) }))}
          onPick={(year) => set("year", Number(year))}
        />
      )}
      {planted && <p className={planted.verdict === "good" ? "quiet narrow" : "narrow"}>{planted.words}</p>}
      {onRemove && (
        <button type="button" className="plain" onClick={onRemove}>
          {say("bench.removeThisCrop")}
        </button>
      )}
    </div>
  );
}
