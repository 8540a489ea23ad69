import { useState } from "react";

import type { Schemas } from "../../api/client";
import { NumberRow } from "../../ui/NumberRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { StockLine } from "../../ui/StockLine";
import { Tick } from "../../ui/Tick";
import { say } from "../../texts/say";

export type Wants = Schemas["Wants"];

export const NOTHING_SAID: Wants = {
  first: "per-season",
  years: 10,
  moves: false,
  both_faces: false,
  no_digging: false,
  heads_pass: false,
  pulled: false,
  wall: false,
  shed: true,
};

export const WALL = say("support.aWallFenceRailingOrPole");

const FIRSTS: readonly { key: Wants["first"]; name: string }[] = [
  { key: "per-season", name: say("support.costPerSeasonAndPlant") },
  { key: "cost", name: say("support.costToBuyPerPlant") },
  { key: "strength", name: say("support.theGustItHolds") },
  { key: "work", name: say("support.littleWork") },
  { key: "life", name: say("support.longLivedParts") },
  { key: "own", name: say("support.partsFromTheShed") },
  { key: "looks", name: say("support.howItLooks") },
];
const REACHES = [
  { key: "", name: say("support.anyoneWithAStepIfNeeded") },
  { key: "2.05", name: say("support.aGrownPersonOnTheGround") },
  { key: "2.2", name: say("support.someoneTall") },
  { key: "1.3", name: say("support.aChildOrSomeoneSeated") },
];
type Kept = "pulled" | "moves" | "both_faces" | "no_digging" | "heads_pass" | "wall" | "shed";
const KEPT: readonly { key: Kept; name: string }[] = [
  { key: "heads_pass", name: say("support.peopleWalkUnderIt") },
  { key: "pulled", name: say("support.childrenOrOthersMayPullOn") },
  { key: "moves", name: say("support.itMovesToAnotherBed") },
  { key: "both_faces", name: say("support.plantsAreReachedFromBothSides") },
  { key: "no_digging", name: say("support.noHolesAreDug") },
  { key: "wall", name: WALL },
  { key: "shed", name: say("support.partsFromTheShedAreUsed") },
];
const NUMBERS: readonly {
  key: "money" | "years" | "minutes" | "people";
  name: string;
  empty: string;
}[] = [
  { key: "money", name: say("support.money"), empty: say("support.noLimit") },
  { key: "years", name: say("support.seasons"), empty: "10" },
  { key: "minutes", name: say("support.minutes"), empty: say("support.noLimit") },
  { key: "people", name: say("common.people"), empty: "any" },
];
const BOUNDS = { money: [0, 1e6], years: [1, 40], minutes: [10, 10_000], people: [1, 10] } as const;

interface Props {
  wants: Wants;
  currency: string;
  units: "metric" | "imperial";
  /** The gust of once in ten seasons on this bed. */
  gust: { value: number; text: string };
  /** The gust of a kept need, as written. */
  keptGust: string;
  /** Whether all of it is shown at once. */
  opened: boolean;
  /** Tools that not everybody has. */
  tools: readonly Schemas["Choice"][];
  keptHeadroom: string;
  /** The garden whose shed is added to; nothing where that is not allowed. */
  shed: number | null;
  /** What an hour of work in the garden is counted at. */
  hour: number | null;
  onHour: ((hour: number | null) => void) | null;
  onWant: (wants: Wants) => void;
}

/** What matters of a support: filled in so that it can be skipped. */
export function Wanted(props: Props) {
  const { wants, currency, units, gust, opened, tools, onWant } = props;
  const [written, setWritten] = useState(props.keptGust);
  const [headroom, setHeadroom] = useState(props.keptHeadroom);
  return (
    <details className="wanted" open={opened}>
      <summary>{say("support.whatMatters")}</summary>
      <QuantityRow
        label={say("support.gustToHold")}
        text={wants.gust == null ? gust.text : written}
        value={wants.gust ?? gust.value}
        kind="speed"
        system={units}
        low={5}
        high={45}
        onValue={(value, text) => {
          setWritten(text);
          onWant({ ...wants, gust: value });
        }}
      />
      <p className="quiet hint">
        {wants.gust == null ? (
          say("support.atThePlantOnceInTen")
        ) : (
          <button type="button" className="plain" onClick={() => onWant({ ...wants, gust: null })}>
            {say("support.useTheOnceInTenSeasons")}
          </button>
        )}
      </p>
      <Pick
        label={say("support.mostImportant")}
        value={wants.first}
        choices={FIRSTS}
        onPick={(first) => onWant({ ...wants, first: first as Wants["first"] })}
      />
      {NUMBERS.map(({ key, name, empty }) => (
        <NumberRow
          key={key}
          name={key === "money" ? `${name}, ${currency}` : name}
          empty={empty}
          bounds={BOUNDS[key]}
          value={wants[key] ?? null}
          onValue={(value) => {
            onWant({ ...wants, [key]: value ?? NOTHING_SAID[key] ?? null });
          }}
        />
      ))}
      {props.onHour && (
        <NumberRow
          name={say("common.anHourOfWork", { currency })}
          empty={say("support.notCounted")}
          bounds={[0, 1e4]}
          value={props.hour}
          onValue={props.onHour}
        />
      )}
      <Pick
        label={say("support.whoTiesThePlants")}
        value={String(wants.reach ?? "")}
        choices={REACHES}
        onPick={(reach) => onWant({ ...wants, reach: reach === "" ? null : Number(reach) })}
      />
      {KEPT.map(({ key, name }) => (
        <Tick
          key={key}
          label={name}
          checked={wants[key]}
          onTick={(checked) => onWant({ ...wants, [key]: checked })}
        />
      ))}
      {wants.heads_pass && (
        <QuantityRow
          label={say("support.clearHeight")}
          text={wants.headroom == null ? "" : headroom}
          value={wants.headroom ?? 0}
          kind="length"
          system={units}
          low={1}
          high={2.4}
          onValue={(value, text) => {
            setHeadroom(text);
            onWant({ ...wants, headroom: value });
          }}
        />
      )}
      {wants.heads_pass && <p className="quiet hint">{say("support.underFruitAndLeavesTheTallest")}</p>}
      {props.shed != null && <StockLine garden={props.shed} />}
      <fieldset className="bare tools">
        <legend>{say("support.tools")}</legend>
        <Tick
          label={say("support.iHaveEveryTool")}
          checked={wants.tools == null}
          onTick={(every) => onWant({ ...wants, tools: every ? null : [] })}
        />
        {wants.tools != null &&
          tools.map(({ key, name }) => (
            <Tick
              key={key}
              label={name}
              checked={wants.tools?.includes(key) ?? false}
              onTick={(has) =>
                onWant({
                  ...wants,
                  tools: has
                    ? [...(wants.tools ?? []), key]
                    : (wants.tools ?? []).filter((each) => each !== key),
                })
              }
            />
          ))}
      </fieldset>
    </details>
  );
}
