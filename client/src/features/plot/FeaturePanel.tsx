import type { Garden, Schemas } from "../../api/client";
import { NameRow } from "../../ui/NameRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { ThingActions } from "./ThingActions";
import { changeOf } from "./placing";
import type { PlanHand } from "./usePlan";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  feature: Garden["features"][number];
  written: Record<string, string>;
  plan: PlanHand;
  catalogue: Schemas["Catalogue"];
  canEdit: boolean;
}

/** A path, wall, buried line, post or stump by number; a line's corners can be written too. */
export function FeaturePanel({ garden, feature, written, plan, catalogue, canEdit }: Props) {
  const fields = {
    ...feature.fields,
    ...plan.wanted.feature.get(feature.key),
  };
  const kind = catalogue.feature_kinds.find((each) => each.key === fields.kind);
  const alike = catalogue.feature_kinds.filter((each) => each.round === kind?.round);
  const change = (what: Schemas["FeatureChange"]) => plan.put(changeOf("feature", feature.key, what));
  const at = (index: number, axis: 0 | 1, value: number) =>
    fields.points.map<[number, number]>((point, i) =>
      i === index ? (axis === 0 ? [value, point[1]] : [point[0], value]) : point,
    );
  const corners = (written.points ?? "").split(" · ");
  const last = fields.points.at(-1);
  const addCorner = () => {
    const before = fields.points.at(-2);
    if (last && before)
      change({
        points: [
          ...fields.points,
          [last[0] + (last[0] - before[0]) / 2, last[1] + (last[1] - before[1]) / 2],
        ] as [number, number][],
      });
  };
  return (
    <div className="ledger">
      <h1 className="thingname">{fields.name}</h1>
      <p className="quiet">{feature.words}</p>
      {kind?.group === "buried" && <p className="hint">{say("plot.haveBuriedServicesMarkedByTheir")}</p>}
      {kind?.group === "tie-off" && <p className="hint">{say("plot.askFirstIfTheWallOr")}</p>}
      <fieldset disabled={!canEdit} className="bare">
        <h2>{kind?.name ?? "Thing"}</h2>
        <NameRow value={fields.name} onName={(name) => change({ name })} />
        <Pick
          label={say("plot.kind")}
          value={fields.kind}
          choices={alike}
          onPick={(key) => change({ kind: alike.find((each) => each.key === key)?.key ?? null })}
        />
        <QuantityRow
          label={kind?.round ? say("plot.across") : say("plot.width")}
          text={written.width ?? ""}
          value={fields.width}
          kind="length"
          system={garden.units}
          low={catalogue.bounds["feature.width"]?.low}
          high={catalogue.bounds["feature.width"]?.high}
          step={0.05}
          onValue={(width) => change({ width })}
        />
        {(fields.kind === "wall" || fields.kind === "fence") && (
          <QuantityRow
            label={say("plot.height")}
            text={fields.height == null ? say("plot.notKnown") : (written.height ?? "")}
            value={fields.height ?? 1.8}
            kind="length"
            system={garden.units}
            low={0.3}
            high={6}
            onValue={(height) => change({ height })}
          />
        )}
        {kind?.group === "buried" && (
          <QuantityRow
            label={say("plot.depth")}
            text={fields.depth == null ? say("plot.notKnown") : (written.depth ?? "")}
            value={fields.depth ?? 0.45}
            kind="length"
            system={garden.units}
            low={0}
            high={5}
            onValue={(depth) => change({ depth })}
          />
        )}
        {fields.points.map((point, index) => {
          const [east = "", north = ""] = (corners[index] ?? "").split(", ");
          return (
            <div key={index} className="row corner">
              <span className="label">
                {kind?.round ? say("plot.place") : say("plot.corner", { index: index + 1 })}
              </span>
              <QuantityRow
                label={say("plot.east2", { index: index + 1 })}
                text={east}
                value={point[0]}
                kind="length"
                system={garden.units}
                low={-500}
                high={500}
                step={0.1}
                onValue={(value) => change({ points: at(index, 0, value) })}
              />
              <QuantityRow
                label={say("plot.north2", { index: index + 1 })}
                text={north}
                value={point[1]}
                kind="length"
                system={garden.units}
                low={-500}
                high={500}
                step={0.1}
                onValue={(value) => change({ points: at(index, 1, value) })}
              />
            </div>
          );
        })}
        {!kind?.round && canEdit && (
          <p>
            {fields.points.length < 20 && (
              <button type="button" className="plain" onClick={addCorner}>
                {say("plot.addACorner")}
              </button>
            )}
            {fields.points.length > 2 && (
              <button
                type="button"
                className="plain"
                onClick={() => change({ points: fields.points.slice(0, -1) })}
              >
                {say("plot.removeACorner")}
              </button>
            )}
          </p>
        )}
      </fieldset>
      {canEdit && (
        <ThingActions
          kind="feature"
          thing={{ key: feature.key, name: fields.name }}
          plan={plan}
          shift={{ points: fields.points.map<[number, number]>(([x, y]) => [x, y - 1]) }}
        />
      )}
    </div>
  );
}
