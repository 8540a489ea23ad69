import { Link } from "react-router";

import type { Schemas } from "../../api/client";
import type { Year } from "../../api/season";
import { across, type Scale } from "./days";
import { say } from "../../texts/say";

const HIGH = 90;

/** What the garden brings in by week: as a rule, and from a poor to a good year. */
export function HarvestStrip({
  report,
  scale,
  names,
}: {
  report: Year["report"];
  scale: Scale;
  names: number;
}) {
  const { harvest } = report;
  const most = Math.max(1, ...harvest.weeks.map((week) => week.kg)) * 1.5;
  const week = scale.width / scale.weeks;
  const y = (kg: number) => HIGH - (Math.min(kg, most) / most) * (HIGH - 18);
  if (!harvest.weeks.length) return null;
  return (
    <section
      className="yearrow"
      style={{ gridTemplateColumns: names ? `${names}px 1fr` : "1fr" }}
      aria-label={say("season.harvest")}
    >
      <div className="yearname">
        <strong>{say("season.harvest")}</strong>
        <span className="quiet narrow">{harvest.total}</span>
      </div>
      <svg width={scale.width} height={HIGH} className="yearlane" aria-hidden="true">
        {harvest.weeks.map((each) => {
          const x = across(scale, each.monday);
          return (
            <g key={each.monday}>
              <title>
                {say("season.weekOf", { label: each.label, words: each.words, join: each.crops.join(", ") })}
              </title>
              <rect
                x={x + 1}
                width={Math.max(week - 2, 1)}
                y={y(each.kg)}
                height={HIGH - y(each.kg)}
                fill="var(--fruit)"
              />
              <path
                d={`M${x + week / 2} ${y(each.low)}V${y(each.high)}`}
                stroke="var(--ink2)"
                strokeWidth={1}
                opacity={0.7}
              />
              {each.mark && (
                <text className="caption" x={x + week / 2} y={11} textAnchor="middle">
                  {each.mark}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </section>
  );
}

/** The harvest in words: each structure, each week. */
export function HarvestTable({ year }: { year: Year }) {
  const { harvest } = year.report;
  const named = new Map(year.structures.map((each) => [each.key, each]));
  if (!harvest.weeks.length) return null;
  return (
    <details className="yearmore">
      <summary>{say("season.theHarvestByWeekAndBy")}</summary>
      <div className="prose twocols">
        <table>
          <thead>
            <tr>
              <th scope="col">{say("season.weekOf2")}</th>
              <th scope="col">{say("season.inAll")}</th>
              <th scope="col">{say("season.mostOfIt")}</th>
            </tr>
          </thead>
          <tbody>
            {harvest.weeks.map((week) => (
              <tr key={week.monday}>
                <td>
                  {week.label} {week.mark && <strong>{week.mark}</strong>}
                </td>
                <td>{week.words}</td>
                <td>{week.crops.join(", ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table>
          <thead>
            <tr>
              <th scope="col">{say("season.support")}</th>
              <th scope="col">{say("season.bringsIn")}</th>
            </tr>
          </thead>
          <tbody>
            {harvest.rows.map((row) => (
              <tr key={row.structure}>
                <td>{named.get(row.structure)?.name}</td>
                <td>{row.words}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** What is between crops that follow one another, with the ways out. */
export function Clashes({ year }: { year: Year }) {
  const named = new Map(year.structures.map((each) => [each.key, each]));
  const { clashes } = year.report;
  if (!clashes.length) return null;
  return (
    <section aria-label={say("season.oneAfterTheOther")} className="yearmore">
      <h2>{say("season.oneAfterTheOther")}</h2>
      {clashes.map((clash) => {
        const of = named.get(clash.structure);
        return (
          <div key={`${clash.structure}/${clash.first}/${clash.second}/${clash.words}`}>
            <p>
              {of && <Link to={`/structures/${of.id}`}>{of.name}</Link>}: {clash.words}
            </p>
            <ul className="acts">
              {clash.ways.map((way) => (
                <li key={way}>{way}</li>
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}

/** Beds through the years: what came back too soon, and what may come next. */
export function Rotation({ turns }: { turns: readonly Schemas["TurnReport"][] }) {
  const planted = turns.filter((turn) => turn.now || turn.past.length > 0);
  if (!planted.length) return null;
  return (
    <section aria-label={say("season.rotation")} className="yearmore">
      <h2>{say("season.rotation")}</h2>
      <div className="prose">
        <table>
          <thead>
            <tr>
              <th scope="col">{say("common.bed")}</th>
              <th scope="col">{say("season.thisYear")}</th>
              <th scope="col">{say("season.before")}</th>
              <th scope="col">{say("season.mayComeNextYear")}</th>
            </tr>
          </thead>
          <tbody>
            {planted.map((turn) => (
              <tr key={turn.bed}>
                <td>{turn.name}</td>
                <td>
                  {turn.now}
                  {turn.warnings.map((words) => (
                    <p key={words} className="refusal">
                      {words}
                    </p>
                  ))}
                </td>
                <td>
                  {turn.past.map((words) => (
                    <div key={words}>{words}</div>
                  ))}
                </td>
                <td>
                  {turn.next.map((words) => (
                    <div key={words}>{words}</div>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
