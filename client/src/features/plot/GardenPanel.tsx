import { Link } from "react-router";

import type { Garden, Schemas } from "../../api/client";
import type { Flat } from "../../drawing/scale";
import { AddGlyph } from "./AddGlyph";
import { GardenFields } from "./GardenFields";
import { changeOf } from "./placing";
import type { PlanHand } from "./usePlan";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  plan: PlanHand;
  catalogue: Schemas["Catalogue"];
  canEdit: boolean;
  onChoose: (key: string) => void;
}

const LONG = 3;

/**
 * The garden when nothing on it is chosen: what is in the way, what can be added, and what all of it shares.
 */
export function GardenPanel({ garden, plan, catalogue, canEdit, onChoose }: Props) {
  const [west, north] = garden.room;
  const addBed = () => {
    const { key, ...fields } = garden.next_bed;
    plan.put({ ...changeOf("bed", key, fields), act: "add" });
  };
  const addFeature = (kind: Schemas["FeatureChoice"]) => {
    const start: Flat = [round(west), round(north)];
    const points: Flat[] = kind.round
      ? [start]
      : [
          start,
          [round(kind.length ? west + kind.length : Math.max(west + LONG, garden.plot.high[0])), start[1]],
        ];
    plan.put({
      ...changeOf("feature", kind.key, {
        name: kind.name.charAt(0).toUpperCase() + kind.name.slice(1),
        kind: kind.key,
        points: points as [number, number][],
        width: kind.width,
      }),
      act: "add",
    });
  };
  return (
    <div className="ledger">
      <h1 className="thingname">{garden.name}</h1>
      {garden.role !== "owner" && (
        <p className="quiet">
          {say("plot.sGardenYouMay", {
            owner: garden.owner,
            role: garden.role === "edit" ? say("plot.lookAndChange") : say("plot.look"),
          })}
        </p>
      )}
      {plan.warnings.length > 0 && (
        <>
          <h2>{say("plot.conflicts")}</h2>
          <p className="quiet hint">{say("plot.flaggedOnThePlanMustChange")}</p>
          <ul className="notes">
            {plan.warnings.map((warning, i) => (
              <li key={i} data-mark={warning.level === "wrong" ? "▶" : "▷"}>
                <button
                  type="button"
                  className="worded"
                  onClick={() => warning.things[0] && onChoose(warning.things[0])}
                >
                  {warning.text}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {canEdit && (
        <>
          <h2>{say("plot.add")}</h2>
          <div className="adders">
            <button type="button" className="adder" onClick={addBed}>
              <AddGlyph kind="bed" /> {say("plot.bed")}
            </button>
            {catalogue.feature_kinds.map((kind) => (
              <button key={kind.key} type="button" className="adder" onClick={() => addFeature(kind)}>
                <AddGlyph kind={kind.key} /> {kind.name}
              </button>
            ))}
          </div>
          <GardenFields garden={garden} plan={plan} catalogue={catalogue} />
        </>
      )}
      <p className="hint keys">
        {say("plot.keys")} <kbd>{say("plot.tab")}</kbd> {say("plot.goesToTheNextItemArrows")}
        <kbd>{say("plot.shift")}</kbd> 1 m, <kbd>{say("plot.alt")}</kbd> {say("plot.n1Cm")} <kbd>[</kbd>{" "}
        <kbd>]</kbd> {say("plot.turn")} <kbd>{say("plot.enter")}</kbd> {say("plot.opens")}{" "}
        <kbd>{say("plot.delete")}</kbd> {say("plot.removes")} <kbd>+</kbd> <kbd>−</kbd> <kbd>0</kbd>{" "}
        {say("plot.zoom")} <kbd>{say("plot.ctrlK")}</kbd> {say("plot.findsAnything")}{" "}
        <Link to="/method">{say("common.howAscentCalculates")}</Link>
      </p>
    </div>
  );
}

const round = (metres: number) => Math.round(metres * 20) / 20;
