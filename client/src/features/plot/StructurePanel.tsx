import { Link } from "react-router";

import type { Garden, Schemas, StructureLine } from "../../api/client";
import { NameRow } from "../../ui/NameRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { StateMark } from "../../ui/StateMark";
import { ThingActions } from "./ThingActions";
import { changeOf } from "./placing";
import type { PlanHand } from "./usePlan";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  row: Garden["structures"][number];
  line: StructureLine | undefined;
  written: Record<string, string>;
  plan: PlanHand;
  catalogue: Schemas["Catalogue"];
  canEdit: boolean;
}

/** A structure on the plan: how it stands, and where, by number. Everything else is in its design. */
export function StructurePanel({ garden, row, line, written, plan, catalogue, canEdit }: Props) {
  const want = plan.wanted.structure.get(row.key);
  const change = (what: Schemas["StructureChange"]) => plan.put(changeOf("structure", row.key, what));
  const option = garden.structures.length
    ? catalogue.families.flatMap((family) => family.options).find((each) => each.name === row.stretch)
    : undefined;
  const length = (want?.options?.[row.stretch] as number | undefined) ?? row.length;
  return (
    <div className="ledger">
      <h1 className="thingname">{want?.name ?? row.name}</h1>
      <p className="quiet">{row.crops}</p>
      {line?.broken && (
        <p role="alert" className="refusal">
          {line.broken}
        </p>
      )}
      {line && !line.state && <p className="quiet">{line.words}</p>}
      {line?.state && (
        <p className="standing">
          <StateMark state={line.state} />
          <span>
            <strong>{line.limit}</strong>
            {say("plot.neededExpectedToFail", { words: line.words, design: line.design, once: line.once })}
            <br />
            {line.weakest}
            <br />
            <span className="quiet">{line.week}</span>
          </span>
        </p>
      )}
      <p className="primary">
        <Link className="strong button" to={`/structures/${row.id}`}>
          {say("plot.openDesign")}
        </Link>
        <Link to={`/structures/${row.id}/build`}>
          {say("plot.build")}
          {row.built && `: ${row.built}`}
        </Link>
        <Link to={`/structures/${row.id}/parts`}>
          {line ? say("plot.partsCost", { cost: line.cost }) : say("plot.parts")}
        </Link>
        <Link to={`/structures/${row.id}/life`}>{say("log.life")}</Link>
      </p>
      <fieldset disabled={!canEdit} className="bare">
        <h2>{say("plot.place")}</h2>
        <NameRow value={want?.name ?? row.name} onName={(name) => change({ name })} />
        <Pick
          label={say("common.bed")}
          value={want?.bed ?? row.bed}
          choices={garden.beds.map((bed) => ({ key: bed.key, name: bed.fields.name }))}
          onPick={(bed) => change({ bed, along: 0, across: 0 })}
        />
        <QuantityRow
          label={say("plot.alongTheBed")}
          text={written.along ?? ""}
          value={want?.along ?? row.along}
          kind="length"
          system={garden.units}
          low={-500}
          high={500}
          step={0.05}
          onValue={(along) => change({ along })}
        />
        <QuantityRow
          label={say("plot.acrossIt")}
          text={written.across ?? ""}
          value={want?.across ?? row.across}
          kind="length"
          system={garden.units}
          low={-500}
          high={500}
          step={0.05}
          onValue={(across) => change({ across })}
        />
        <QuantityRow
          label={say("plot.turned")}
          text={written.turn ?? ""}
          value={want?.turn ?? row.turn}
          kind="bearing"
          system={garden.units}
          low={0}
          high={359.9}
          step={5}
          onValue={(turn) => change({ turn })}
        />
        {option && (
          <QuantityRow
            label={say("plot.length")}
            text={written[`options.${row.stretch}`] ?? ""}
            value={length}
            kind="length"
            system={garden.units}
            low={option.low}
            high={option.high}
            step={0.05}
            onValue={(value) => change({ options: { [row.stretch]: value } })}
          />
        )}
      </fieldset>
      {canEdit && (
        <ThingActions
          kind="structure"
          thing={{ key: row.key, name: row.name }}
          plan={plan}
          shift={{ across: row.across - 0.4 }}
        />
      )}
    </div>
  );
}
