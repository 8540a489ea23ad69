import { Link, useParams } from "react-router";

import { useLife } from "../../api/log";
import { useGarden } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { GardenLinks } from "../../ui/GardenLinks";
import { LogLine } from "../../ui/LogLine";
import { Photos } from "../../ui/Photos";
import { say } from "../../texts/say";
import { HarvestChart } from "./HarvestChart";

/** The life of one support: its figures, its harvest beside the forecast, all that happened to it. */
export function LifePage() {
  const id = Number(useParams().structureId);
  const life = useLife(id);
  const garden = useGarden(life.data?.garden ?? 0);
  if (life.isError && !life.data) return <Faulty error={life.error} />;
  if (!life.data) return <p className="page quiet">{say("common.loading")}</p>;
  const { report, name, bed_name: bed, key } = life.data;
  return (
    <>
      <Bar garden={garden.data}>
        <span className="grow trail">
          {garden.data && <Link to={`/gardens/${garden.data.id}`}>{garden.data.name}</Link>} / {bed}
        </span>
        {garden.data && <GardenLinks garden={garden.data} />}
      </Bar>
      <main className="page logpage">
        <h1>{say("log.lifeOf", { name })}</h1>
        <p className="actions noprint">
          <Link to={`/structures/${id}`}>{say("plot.openDesign")}</Link>{" "}
          <Link to={`/structures/${id}/build`}>{say("plot.build")}</Link>{" "}
          <Link to={`/gardens/${life.data.garden}/log?about=${key}`}>{say("log.entriesAndCorrections")}</Link>{" "}
          <button type="button" className="plain" onClick={() => window.print()}>
            {say("log.print")}
          </button>
        </p>
        {garden.data && garden.data.role !== "read" && <LogLine garden={life.data.garden} about={key} />}
        <dl className="figures">
          {report.figures.map((figure) => (
            <div key={figure.label}>
              <dt>{figure.label}</dt>
              <dd>{figure.text}</dd>
            </div>
          ))}
        </dl>
        {report.weeks.length > 0 && <HarvestChart report={report} />}
        {report.parts.length > 0 && (
          <>
            <h2>{say("log.partsThatWear")}</h2>
            <dl className="figures">
              {report.parts.map((part) => (
                <div key={part.name}>
                  <dt>{part.name}</dt>
                  <dd>{part.words}</dd>
                </div>
              ))}
            </dl>
          </>
        )}
        <h2>{say("log.whatHappened")}</h2>
        {report.events.length === 0 && <p className="quiet">{say("log.nothingYet")}</p>}
        <ol className="logrows">
          {report.events.map((event, at) => (
            <li key={`${event.on}/${event.key}/${event.words}`} className="logrow">
              <span className="logday">
                {report.events[at - 1]?.label === event.label ? "" : event.label}
              </span>
              <span>
                {event.words}
                <Photos garden={life.data.garden} photos={event.photos} words={event.words} />
              </span>
            </li>
          ))}
        </ol>
        {report.earlier > 0 && (
          <p className="quiet">{say("log.earlierInTheLog", { count: report.earlier })}</p>
        )}
      </main>
    </>
  );
}
