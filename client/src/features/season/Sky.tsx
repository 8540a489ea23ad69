import { useEffect, useRef } from "react";
import { Link } from "react-router";

import type { Schemas } from "../../api/client";
import { useWeather, type Week } from "../../api/season";
import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";
import { LeftOut } from "../../ui/LeftOut";
import { After } from "./After";
import type { Finding } from "./useMarks";
import { upTo } from "../../ui/upTo";
import { say } from "../../texts/say";

interface Props {
  week: Week;
  onFound: (structure: Schemas["Standing"], day: string, found: Finding) => void;
}

/** The storm if there is one, the one that was, and the days ahead in a line. */
export function Sky({ week, onFound }: Props) {
  const weather = useWeather(week.id);
  const fresh = useFresh();
  const asked = useRef(false);
  const unseen = week.may_edit ? (weather.data?.unseen ?? 0) : 0;
  useEffect(() => {
    if (!unseen || asked.current) return;
    asked.current = true;
    void askGarden(week.id, "/weather/seen", {}, say("season.weeksOfWeatherWrittenDown", { unseen }))
      .then(() => fresh.again("garden", "week", "year", "weather"))
      .catch(() => null);
  }, [fresh, unseen, week.id]);
  if (!weather.data) return null;
  const { report, problem } = weather.data;
  const named = new Map(week.structures.map((each) => [each.key, each]));
  return (
    <>
      {report?.after && <After after={report.after} named={named} onFound={week.may_edit ? onFound : null} />}
      {report?.storm && <Storm storm={report.storm} named={named} />}
      {report?.cold && <Cold cold={report.cold} named={named} />}
      {report?.heat && <Heat heat={report.heat} />}
      {report && (
        <section aria-label={say("season.daysAhead")} className="ahead">
          <table>
            <tbody>
              <tr>
                {report.days.map((day) => (
                  <th key={day.on} scope="col">
                    {day.label}
                  </th>
                ))}
              </tr>
              <tr>
                {report.days.map((day) => (
                  <td key={day.on}>
                    {day.low} – {day.high}
                    <br />
                    {day.rain}
                    <br />
                    <span className="gust">{day.gust}</span>
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
          <p className="quiet hint">
            {say("season.nightAndDayRainStrongestGust", { station: report.station, age: report.age })}
          </p>
        </section>
      )}
      {problem && <p className="quiet hint">{say("season.noFreshWeather", { problem })}</p>}
    </>
  );
}

function Storm({ storm, named }: { storm: Schemas["StormReport"]; named: Map<string, Schemas["Standing"]> }) {
  return (
    <section aria-label={say("season.stormWatch")} className="storm">
      <h2>{say("season.stormWatch2", { label: storm.label })}</h2>
      <p>{storm.words}</p>
      <p>{storm.general.join(" ")}</p>
      <p>
        {storm.bare > 0 &&
          say(storm.bare === 1 ? "season.oneWithoutACrop" : "season.severalWithoutACrop", {
            bare: storm.bare,
          })}
        {say(storm.hold === 1 ? "season.oneSupportHolds" : "season.severalSupportsHold", {
          hold: storm.hold,
        })}{" "}
        {storm.rows.length > 0 && say("season.theseMayNotTheWeakestFirst")}
      </p>
      <LeftOut words={storm.left_out} />
      {storm.rows.map((row) => (
        <StormLine key={row.structure} row={row} of={named.get(row.structure)} />
      ))}
      <p className="quiet hint">{say("season.doNotWorkOnASupport")}</p>
    </section>
  );
}

/** A cold night: what it kills, and what to do first. */
function Cold({ cold, named }: { cold: Schemas["ColdReport"]; named: Map<string, Schemas["Standing"]> }) {
  return (
    <section aria-label={say("season.frostWatch")} className="storm">
      <h2>{say("season.frostWatch")}</h2>
      <p>{cold.words}</p>
      {cold.rows.map((row) => (
        <div key={`${row.structure} ${row.planting}`} className="stormline">
          <p>
            <strong>{named.get(row.structure)?.name ?? row.structure}</strong>{" "}
            <span className={row.outcome === "dies" ? "weak" : "quiet"}>{row.words}</span>
          </p>
          <ul className="acts">
            {row.acts.map((act) => (
              <li key={act.key}>
                <strong>{act.title}</strong>
                {say("season.min2", { minutes: act.minutes })}
                {act.saves && say("season.saves", { saves: act.saves })}.{" "}
                <span className="quiet">{act.how}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** Hot days: which crops set nothing, and what helps. */
function Heat({ heat }: { heat: Schemas["HeatReport"] }) {
  return (
    <section aria-label={say("season.heatWatch")} className="storm">
      <h2>{say("season.heatWatch")}</h2>
      <p>
        {heat.words} {heat.acts.join(" ")}
      </p>
      {heat.crops.map((crop) => (
        <p key={crop}>{crop}</p>
      ))}
    </section>
  );
}

/** One structure before a storm: how it stands and what helps most; the rest when it is opened. */
function StormLine({ row, of }: { row: Schemas["StormRow"]; of: Schemas["Standing"] | undefined }) {
  if (!of) return null;
  const best = row.moves.find((move) => move.after);
  return (
    <details className="stormline">
      <summary>
        <strong>{of.name}</strong>{" "}
        <span className={row.outcome === "goes" ? "weak" : undefined}>
          {row.outcome === "goes" ? say("season.tooWeak") : say("season.mayFail")}
        </span>
        <span className="quiet">: {row.brief}. </span>
        {best
          ? say("season.min", { title: best.title, minutes: best.minutes, after: best.after })
          : say("season.keepPeopleClearOfIt")}
      </summary>
      <p>
        {say("season.firstToFail", { words: row.words, weakest: row.weakest })}{" "}
        <Link to={`/structures/${of.id}`}>{say("season.openDesign")}</Link>
      </p>
      <ul className="acts">
        {row.moves.map((move) => (
          <li key={move.key}>
            <strong>{move.title}</strong>
            {say("season.min2", { minutes: move.minutes })}
            {move.after && say("season.holds", { after: upTo(move.after) })}.{" "}
            <span className="quiet">{move.how}</span>
          </li>
        ))}
      </ul>
      {row.together && (
        <p className="quiet">{say("season.withAllOfTheseItHolds", { together: upTo(row.together) })}</p>
      )}
    </details>
  );
}
