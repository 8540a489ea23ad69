import { Link } from "react-router";

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
  bed: Garden["beds"][number];
  written: Record<string, string>;
  plan: PlanHand;
  catalogue: Schemas["Catalogue"];
  canEdit: boolean;
}

type Field = "length" | "width" | "x" | "y" | "bearing" | "fill_depth" | "board";
const SIZES: [Field, string][] = [
  ["length", say("plot.length")],
  ["width", say("plot.width")],
  ["bearing", say("plot.bearing")],
  ["x", say("plot.east")],
  ["y", say("plot.north")],
];
const RAISED: [Field, string][] = [
  ["fill_depth", say("plot.depthOfFill")],
  ["board", say("plot.board")],
];

/** A bed by number: what it is, how large, where, and of what earth. */
export function BedPanel({ garden, bed, written, plan, catalogue, canEdit }: Props) {
  const fields = { ...bed.fields, ...plan.wanted.bed.get(bed.key) };
  const change = (what: Schemas["BedChange"]) => plan.put(changeOf("bed", bed.key, what));
  const raised = fields.kind !== "in-ground";
  const rows = garden.structures.filter((row) => row.bed === bed.key);
  return (
    <div className="ledger">
      <h1 className="thingname">{fields.name}</h1>
      <p className="quiet">{bed.words}</p>
      {canEdit && (
        <p className="primary">
          <Link className="strong button" to={`/gardens/${garden.id}/beds/${bed.key}/new`}>
            {say("plot.planASupport")}
          </Link>
        </p>
      )}
      {rows.map((row) => (
        <p key={row.key}>
          <Link to={`/structures/${row.id}`}>{say("plot.designOf", { name: row.name })}</Link>
        </p>
      ))}
      {garden.needs
        .filter((row) => row.fields.bed === bed.key)
        .map((row) => (
          <p key={row.key}>
            {say("plot.wanted")}{" "}
            <Link to={`/gardens/${garden.id}/beds/${bed.key}/new?need=${row.key}`}>{row.fields.name}</Link>{" "}
            <span className="quiet">{row.words}</span>
          </p>
        ))}
      <fieldset disabled={!canEdit} className="bare">
        <h2>{say("common.bed")}</h2>
        <NameRow value={fields.name} onName={(name) => change({ name })} />
        <Pick
          label={say("plot.kind")}
          value={fields.kind}
          choices={catalogue.bed_kinds}
          onPick={(kind) =>
            change({
              kind: kind as "raised",
              ...(kind !== "in-ground" && !fields.fill_depth ? { fill_depth: 0.3 } : {}),
            })
          }
        />
        {[...SIZES, ...(raised ? RAISED : [])].map(([name, label]) => (
          <QuantityRow
            key={name}
            label={label}
            text={written[name] ?? ""}
            value={fields[name]}
            kind={name === "bearing" ? "bearing" : "length"}
            system={garden.units}
            low={catalogue.bounds[`bed.${name}`]?.low}
            high={name === "bearing" ? 359.9 : catalogue.bounds[`bed.${name}`]?.high}
            step={name === "bearing" ? 5 : 0.05}
            onValue={(value) => change({ [name]: value })}
          />
        ))}
        {fields.kind === "container" && (
          <QuantityRow
            label={say("plot.volume")}
            text={written.volume ?? ""}
            value={fields.length * fields.width * fields.fill_depth}
            kind="volume"
            system={garden.units}
            onValue={(volume) =>
              change({ fill_depth: Math.min(Math.max(volume / (fields.length * fields.width), 0.05), 1.2) })
            }
          />
        )}
        <Pick
          label={raised ? say("plot.soilBelow") : say("plot.soil")}
          value={fields.soil}
          choices={catalogue.soils}
          onPick={(soil) => change({ soil })}
        />
        {!raised && (
          <Pick
            label={say("plot.topLayer")}
            value={fields.top}
            choices={catalogue.bed_tops}
            onPick={(top) => change({ top: top as "dug" })}
          />
        )}
        {raised && (
          <Pick
            label={say("plot.fill")}
            value={fields.fill}
            choices={catalogue.soils}
            onPick={(fill) => change({ fill })}
          />
        )}
        <Pick
          label={say("plot.exposure")}
          value={fields.exposure ?? ""}
          choices={[{ key: "", name: say("plot.sameAsTheGarden") }, ...catalogue.exposures]}
          onPick={(exposure) => change({ exposure: exposure || null })}
        />
      </fieldset>
      {canEdit && (
        <ThingActions
          kind="bed"
          thing={{ key: bed.key, name: fields.name }}
          plan={plan}
          shift={{ x: fields.x, y: fields.y - fields.width - garden.place.fields.path_width }}
        />
      )}
    </div>
  );
}
