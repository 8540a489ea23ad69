import { useState } from "react";
import { Link, useParams } from "react-router";

import type { Schemas } from "../../api/client";
import { useGarden } from "../../api/queries";
import { useWeek, type Visit, type Week } from "../../api/season";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { LeftOut } from "../../ui/LeftOut";
import { LogLine } from "../../ui/LogLine";
import { Panel } from "../../ui/Panel";
import { useUndoing } from "../../ui/useUndoing";
import { FeedBox } from "./FeedBox";
import { Sky } from "./Sky";
import { TaskRow } from "./TaskRow";
import { type Marking, useMarks } from "./useMarks";
import { say } from "../../texts/say";

/** This week: the storm if there is one, then tonight’s visits in the order in which one walks them. */
export function WeekPage() {
  const id = Number(useParams().gardenId);
  const week = useWeek(id);
  const garden = useGarden(id);
  if (week.isError && !week.data) return <Faulty error={week.error} garden={id} />;
  if (!week.data) return <p className="page quiet">{say("common.loading")}</p>;
  return (
    <>
      {garden.data ? (
        <GardenBar garden={garden.data} />
      ) : (
        <Bar>
          <span className="grow trail">{week.data.name}</span>
        </Bar>
      )}
      <Days week={week.data} />
    </>
  );
}

const minutes = (count: number) =>
  count < 60
    ? say("season.min4", { count })
    : say("season.hMin", { count: Math.floor(count / 60), count2: count % 60 });

function Days({ week }: { week: Week }) {
  const { shown, mark, find, built } = useMarks(week);
  const { refusal } = useUndoing(week.id);
  const { report } = shown;
  const named = new Map(shown.structures.map((each) => [each.key, each]));
  const [printing, setPrinting] = useState(false);
  const print = () => {
    setPrinting(true);
    window.setTimeout(() => window.print(), 100); // once every day is open
  };
  const stands = (key: string) => {
    const structure = named.get(key);
    if (structure) built(structure);
  };
  const open = report.now?.visits.filter((visit) => visit.minutes > 0).length ?? 0;
  return (
    <main className="page weekpage">
      <p className="quiet">{report.label}</p>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
      {shown.may_edit && <LogLine garden={shown.id} about="" />}
      <Panel name={say("season.theWeather")}>
        <Sky week={shown} onFound={find} />
      </Panel>
      <LeftOut words={report.left_out} />
      <h1>
        {report.now
          ? open
            ? `${report.now.label}: ${open} ${open === 1 ? "visit" : "visits"}, ${minutes(report.now.minutes)}`
            : say("season.allDone", { label: report.now.label })
          : say("season.nothingIsDueToday")}
      </h1>
      {report.now && <Visits visits={report.now.visits} named={named} mark={mark} mayEdit={shown.may_edit} />}
      {report.rescues.length > 0 && (
        <section aria-label={say("season.notBuiltYet")}>
          <h2>{say("season.plantedButNotBuiltYet")}</h2>
          {report.rescues.map((rescue) => (
            <details key={rescue.structure} className="stormline">
              <summary>{rescue.words}</summary>
              <ol className="acts">
                {rescue.ways.map((way) => (
                  <li key={way}>{way}</li>
                ))}
              </ol>
              <p>
                <Link to={`/structures/${named.get(rescue.structure)?.id ?? 0}/build`}>
                  {say("season.theBuildSheet")}
                </Link>
                {shown.may_edit && (
                  <button type="button" className="plain" onClick={() => stands(rescue.structure)}>
                    {say("season.markAsBuilt")}
                  </button>
                )}
              </p>
            </details>
          ))}
        </section>
      )}
      {report.overdue.length > 0 && (
        <section aria-label={say("season.overdue")}>
          <h2>{say("season.overdue")}</h2>
          <Visits visits={report.overdue} named={named} mark={mark} mayEdit={shown.may_edit} />
        </section>
      )}
      <section aria-label={say("season.coming")}>
        <h2>{say("season.coming")}</h2>
        {report.coming.length === 0 && (
          <p className="quiet">
            {say("season.nothingInTheNextDays")}{" "}
            <Link to={`/gardens/${shown.id}/year`}>{say("season.theYear")}</Link>{" "}
            {say("season.showsWhenItGoesOn")}
          </p>
        )}
        {report.coming.map((day) => (
          <details key={day.on} className="day" open={printing}>
            <summary>
              <strong>{day.label}</strong>{" "}
              <span className="quiet">
                {day.visits.length} {day.visits.length === 1 ? say("season.visit") : say("season.visits")},{" "}
                {minutes(day.minutes)}
              </span>
            </summary>
            <Visits visits={day.visits} named={named} mark={mark} mayEdit={shown.may_edit} />
          </details>
        ))}
      </section>
      <p className="yearmore noprint">
        <a
          href={`/api/gardens/${week.id}/week.pdf?form=${week.units === "imperial" ? "Letter" : "A4"}`}
          download
        >
          {say("season.shedDoorSheet")}
        </a>{" "}
        ·{" "}
        <button type="button" className="plain" onClick={print}>
          {say("season.printTheWeek")}
        </button>
      </p>
      <Panel name={say("season.theCalendar")}>
        <FeedBox garden={shown.id} mayEdit={shown.may_edit} />
      </Panel>
    </main>
  );
}

interface VisitsProps {
  visits: readonly Visit[];
  named: Map<string, Schemas["Standing"]>;
  mark: Marking;
  mayEdit: boolean;
}

/** Visits one after the other, as one walks. */
function Visits({ visits, named, mark, mayEdit }: VisitsProps) {
  return (
    <ol className="visits">
      {visits.map((visit) => {
        const structure = named.get(visit.structure);
        if (!structure) return null;
        return (
          <li key={`${visit.structure}/${visit.on}`} className="visit">
            <h3>
              <Link to={`/structures/${structure.id}`}>{structure.name}</Link>{" "}
              <span className="quiet">
                {structure.bed} · {visit.minutes > 0 ? minutes(visit.minutes) : say("season.done")}
              </span>{" "}
              <Link className="noprint" to={`/structures/${structure.id}/life`}>
                {say("log.life")}
              </Link>
            </h3>
            <ul>
              {visit.tasks.map((task) => (
                <TaskRow
                  key={task.key}
                  task={task}
                  of={structure}
                  onMark={mayEdit ? (state) => mark(structure, task, state) : null}
                />
              ))}
            </ul>
          </li>
        );
      })}
    </ol>
  );
}
