import type { Garden, Schemas } from "../../api/client";
import { Currency } from "../../ui/Currency";
import { NameRow } from "../../ui/NameRow";
import { NumberRow } from "../../ui/NumberRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { SeasonFields } from "./SeasonFields";
import type { PlanHand } from "./usePlan";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  plan: PlanHand;
  catalogue: Schemas["Catalogue"];
}

/** What the whole garden shares: place, wind, frosts, paths, money. Each change is kept as it is made. */
export function GardenFields({ garden, plan, catalogue }: Props) {
  const { fields, written } = garden.place;
  const keep = (change: Schemas["PlaceChange"]) => plan.put({ kind: "place", change });
  const bounds = catalogue.bounds;
  return (
    <div role="group" aria-label={say("plot.aboutThisGarden")}>
      <h2>{say("plot.aboutThisGarden")}</h2>
      <NameRow value={fields.name} onName={(name) => keep({ name })} />
      <QuantityRow
        label={say("plot.latitude")}
        text={written.latitude ?? ""}
        value={fields.latitude}
        kind="bearing"
        system={garden.units}
        low={-66}
        high={66}
        onValue={(latitude) => keep({ latitude })}
      />
      <Pick
        label={say("plot.exposure")}
        value={fields.exposure}
        choices={catalogue.exposures}
        onPick={(exposure) => keep({ exposure })}
      />
      <Pick
        label={say("plot.windiestSeason")}
        value={fields.climate}
        choices={catalogue.climates}
        onPick={(climate) => keep({ climate })}
      />
      <QuantityRow
        label={say("plot.designGust")}
        text={garden.place.design_gust_text}
        value={garden.place.design_gust}
        kind="speed"
        exposure={fields.exposure}
        system={garden.units}
        low={bounds["garden.design_gust"]?.low}
        high={bounds["garden.design_gust"]?.high}
        onValue={(design_gust) => keep({ design_gust })}
      />
      <p className="quiet hint">
        {fields.design_gust != null ? (
          <button type="button" className="plain" onClick={() => keep({ design_gust: null })}>
            {say("plot.useTheValueForThisExposure")}
          </button>
        ) : (
          say("plot.atThePlantOnceInTen")
        )}
      </p>
      <QuantityRow
        label={say("plot.seasonOf")}
        text={String(fields.year)}
        value={fields.year}
        kind="count"
        system={garden.units}
        low={bounds["garden.year"]?.low}
        high={bounds["garden.year"]?.high}
        onValue={(year) => keep({ year })}
      />
      <SeasonFields garden={garden} catalogue={catalogue} keep={keep} />
      <QuantityRow
        label={say("plot.narrowestPath")}
        text={written.path_width ?? ""}
        value={fields.path_width}
        kind="length"
        system={garden.units}
        low={bounds["garden.path_width"]?.low}
        high={bounds["garden.path_width"]?.high}
        onValue={(path_width) => keep({ path_width })}
      />
      <Currency value={fields.currency} onPick={(currency) => keep({ currency })} />
      <NumberRow
        key={fields.hour ?? ""}
        name={say("common.anHourOfWork", { currency: fields.currency })}
        empty={say("plot.notCounted")}
        bounds={[0, 1e4]}
        value={fields.hour ?? null}
        onValue={(hour) => {
          if (hour !== (fields.hour ?? null)) keep({ hour });
        }}
      />
    </div>
  );
}
