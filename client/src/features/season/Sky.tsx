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
    void askGarden(week.id, "/weather/seen", {}, `${unseen} weeks of weather written down`)
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
      {report && (
        <section aria-label="Days ahead" className="ahead">
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
            {report.station}, {report.age}; night and day, rain, strongest gust at 10 m
          </p>
        </section>
      )}
      {problem && <p className="quiet hint">No fresh weather: {problem}</p>}
    </>
  );
}

function Storm({ storm, named }: { storm: Schemas["StormReport"]; named: Map<string, Schemas["Standing"]> }) {
  return (
    <section aria-label="Storm watch" className="storm">
      <h2>Storm watch: {storm.label}</h2>
      <p>{storm.words}</p>
      <p>{storm.general.join(" ")}</p>
      <p>
        {storm.bare > 0 &&
          `${storm.bare} ${storm.bare === 1 ? "support has" : "supports have"} no crop now by the plan and ${storm.bare === 1 ? "is" : "are"} not calculated. `}
        {storm.hold} {storm.hold === 1 ? "support holds" : "supports hold"}
        {storm.rows.length > 0 ? "; these may not, the weakest first:" : "."}
      </p>
      <LeftOut words={storm.left_out} />
      {storm.rows.map((row) => (
        <StormLine key={row.structure} row={row} of={named.get(row.structure)} />
      ))}
      <p className="quiet hint">
        Do not work on a support during a storm. Gusts at the plants are lower than the forecast; limits
        include a safety factor.
      </p>
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
          {row.outcome === "goes" ? "too weak" : "may fail"}
        </span>
        <span className="quiet">: {row.brief}. </span>
        {best ? `${best.title} (${best.minutes} min): ${best.after}.` : "Keep people clear of it."}
      </summary>
      <p>
        {row.words} First to fail: {row.weakest}. <Link to={`/structures/${of.id}`}>Open design</Link>
      </p>
      <ul className="acts">
        {row.moves.map((move) => (
          <li key={move.key}>
            <strong>{move.title}</strong>, {move.minutes} min{move.after && `: holds ${upTo(move.after)}`}.{" "}
            <span className="quiet">{move.how}</span>
          </li>
        ))}
      </ul>
      {row.together && <p className="quiet">With all of these it holds {upTo(row.together)}.</p>}
    </details>
  );
}
