import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";

import type { Garden, Schemas } from "../../api/client";
import { Frosts } from "../../ui/Frosts";
import { NumberRow } from "../../ui/NumberRow";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { Tick } from "../../ui/Tick";
import { say } from "../../texts/say";

type Place = Schemas["PlaceChange"];
type Warmth = NonNullable<Place["warmth"]>;

interface Props {
  garden: Garden;
  catalogue: Schemas["Catalogue"];
  keep: (change: Place) => void;
}

const DAYS = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];
const MADE: Warmth = {
  height: 20,
  water: "near",
  rain: "even",
  rain_mm: 700,
  coldest: null,
  warmest: null,
  spread: null,
  normals: [],
  lasts: [],
  firsts: [],
  years: 0,
  seen: [],
};
const MONTH_FIELDS = [
  ["coldest", "low", say("plot.coldestMonthNights")],
  ["coldest", "high", say("plot.coldestMonthDays")],
  ["warmest", "low", say("plot.warmestMonthNights")],
  ["warmest", "high", say("plot.warmestMonthDays")],
] as const;

/** Both months with a figure changed; what nobody said yet starts as that of a mild coast. */
function withMonth(
  warmth: Warmth,
  month: "coldest" | "warmest",
  end: "low" | "high",
  value: number,
): Partial<Warmth> {
  const { coldest, warmest } = {
    coldest: warmth.coldest ?? { low: 2, high: 8, rain: 0 },
    warmest: warmth.warmest ?? { low: 14, high: 24, rain: 0 },
  };
  const months = { coldest, warmest };
  return { ...months, [month]: { ...months[month], [end]: value } };
}
const ZONES = ["UTC", ...Intl.supportedValuesOf("timeZone")].map((key) => ({ key, name: key }));
const CAREFUL = [
  { key: "cautious", name: say("plot.n1FrostIn10") },
  { key: "usual", name: say("plot.usual") },
  { key: "bold", name: say("plot.earlyWithAFrostCoverReady") },
];

/** What a garden's season hangs on: frosts, how warm it is, and on which days people come. */
export function SeasonFields({ garden, catalogue, keep }: Props) {
  const { fields } = garden.place;
  const warmth = fields.warmth ?? null;
  const warm = (change: Partial<Warmth>) => keep({ warmth: { ...MADE, ...warmth, ...change } });
  return (
    <>
      <Frosts
        value={{ last_frost: fields.last_frost ?? null, first_frost: fields.first_frost ?? null }}
        latitude={fields.latitude}
        onFrosts={keep}
      />
      {fields.last_frost && (
        <>
          <NumberRow
            key={`spread ${String(fields.frost_spread)}`}
            name={say("plot.frostDatesVaryByDays")}
            empty="10"
            bounds={[2, 40]}
            value={fields.frost_spread}
            onValue={(spread) => {
              if (spread !== null && spread !== fields.frost_spread) keep({ frost_spread: spread });
            }}
          />
          <Pick
            label={say("plot.plantedOut")}
            value={fields.careful}
            choices={CAREFUL}
            onPick={(careful) => keep({ careful: careful as "usual" })}
          />
        </>
      )}
      <Tick
        label={say("plot.useThisGardensClimateForCrop")}
        checked={warmth !== null}
        onTick={(known) => keep({ warmth: known ? MADE : null })}
      />
      {warmth && (
        <>
          <Pick
            label={say("plot.aSeaOrLake")}
            value={warmth.water}
            choices={catalogue.waters}
            onPick={(water) => warm({ water })}
          />
          <QuantityRow
            label={say("plot.aboveTheSea")}
            text={garden.place.written["warmth.height"] ?? ""}
            value={warmth.height}
            kind="length"
            system={garden.units}
            low={-100}
            high={4500}
            onValue={(height) => warm({ height })}
          />
          {MONTH_FIELDS.map(([month, end, label]) => (
            <QuantityRow
              key={label}
              label={label}
              text={garden.place.written[`warmth.${month}.${end}`] ?? ""}
              value={warmth[month]?.[end] ?? 0}
              kind="temperature"
              system={garden.units}
              low={-60}
              high={60}
              onValue={(value) => warm(withMonth(warmth, month, end, value))}
            />
          ))}
          <Pick
            label={say("plot.itRains")}
            value={warmth.rain}
            choices={catalogue.rains}
            onPick={(rain) => warm({ rain })}
          />
        </>
      )}
      <Pick
        label={say("plot.timeZone")}
        value={fields.timezone}
        choices={ZONES}
        onPick={(timezone) => keep({ timezone })}
      />
      <NumberRow
        key={`people ${String(fields.people)}`}
        name={say("plot.peopleWhoShareTheWork")}
        empty="1"
        bounds={[1, 500]}
        value={fields.people}
        onValue={(people) => {
          if (people !== null && people !== fields.people) keep({ people: Math.round(people) });
        }}
      />
      <div className="row" role="group" aria-label={say("plot.daysInTheGarden")}>
        <span className="label">{say("plot.inTheGarden")}</span>
        <ToggleButtonGroup
          size="small"
          value={fields.visits}
          onChange={(_event, days: number[]) => {
            if (days.length) keep({ visits: [...days].sort((a, b) => a - b) });
          }}
        >
          {DAYS.map((name, day) => (
            <ToggleButton key={name} value={day} className="weekday">
              {name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </div>
    </>
  );
}
