import { useRef, useState } from "react";
import { Link, useParams } from "react-router";

import type { Garden, Schemas, StructureLine } from "../../api/client";
import { useGarden, useLines } from "../../api/queries";
import { useSown, useYear, type Year } from "../../api/season";
import { useSize } from "../../drawing/useSize";
import { editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { LeftOut } from "../../ui/LeftOut";
import { Panel } from "../../ui/Panel";
import { CloseSeason } from "./CloseSeason";
import { dateAt, sayDay, type Scale } from "./days";
import { YearHead } from "./YearHead";
import { YearLane } from "./YearLane";
import { Clashes, HarvestStrip, HarvestTable, Rotation } from "./YearMore";
import { say } from "../../texts/say";

/** The year on one sheet: every structure a line, its crops as they stand on it, its limit against gusts. */
export function YearPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const year = useYear(id);
  if (garden.isError && !garden.data) return <Faulty error={garden.error} garden={id} />;
  if (year.isError && !year.data) return <Faulty error={year.error} garden={id} />;
  if (!garden.data || !year.data) return <p className="page quiet">{say("common.loading")}</p>;
  return (
    <>
      <GardenBar garden={garden.data} />
      <Sheet garden={garden.data} year={year.data} />
    </>
  );
}

const NAMES = 190; // px of the names before the weeks, where there is room

function Sheet({ garden, year }: { garden: Garden; year: Year }) {
  const { report } = year;
  const lines = useLines(garden);
  const { ref, width } = useSize<HTMLDivElement>();
  const [moved, setMoved] = useState<Schemas["SownIn"] | null>(null);
  const sown = useSown(garden.id, moved);
  const last = useRef<Schemas["SownIn"] | null>(null);
  const names = width < 640 ? 0 : NAMES;
  const from = report.mondays[0] ?? report.today;
  const scale: Scale = { from, weeks: report.mondays.length, width: Math.max(width - names, 200) };
  const named = new Map(year.structures.map((each) => [each.key, each]));
  const move = (structure: string, planting: string, planted: string) => {
    last.current = { structure, planting, planted, monday: from, weeks: scale.weeks };
    setMoved(last.current);
  };
  const put = () => {
    const done = last.current;
    last.current = null;
    if (!done) return;
    const name = named.get(done.structure)?.name ?? done.structure;
    queue.put(
      editsWrite(
        garden.id,
        [
          {
            kind: "structure",
            act: "change",
            key: done.structure,
            change: { planted: { [done.planting]: done.planted } },
          },
        ],
        say("season.plantedOn", {
          name,
          from: sayDay(done.planted),
        }),
      ),
    );
  };
  const rowOf = (row: Schemas["YearRow"]) =>
    moved?.structure === row.structure && sown.data?.structure === row.structure ? sown.data : row;
  return (
    <main className="page yearpage">
      <h1>{say("season.theYear2", { label: report.label })}</h1>
      <p className="quiet">
        {report.frost_words} {report.warmth_words}
      </p>
      {report.rows.length === 0 ? (
        <p className="lead">
          {say("season.thisPageDoesNotExistYet")}{" "}
          <Link to={`/gardens/${garden.id}`}>{say("season.planASupport")}</Link>
          {say("season.andItsYearIsHere")}
        </p>
      ) : (
        <p className="quiet hint">{say("season.theGreenLineAboveIsWhen")}</p>
      )}
      <LeftOut words={report.left_out} />
      <div ref={ref} className="yearsheet">
        <YearHead scale={scale} names={names} report={report} />
        {report.rows.map((row) => (
          <Row
            key={row.structure}
            row={rowOf(row)}
            of={named.get(row.structure)}
            line={lines.get(row.structure)}
            scale={scale}
            names={names}
            report={report}
            onMove={
              year.may_edit ? (planting, day) => move(row.structure, planting, dateAt(from, day)) : null
            }
            onPut={put}
          />
        ))}
        <HarvestStrip report={report} scale={scale} names={names} />
      </div>
      <Panel name={say("season.theHarvest")}>
        <HarvestTable year={year} />
      </Panel>
      <Panel name={say("season.theWork")}>
        <section aria-label={say("season.theWork")}>
          <h2>{say("season.theWork")}</h2>
          <p>{report.hours.words}</p>
          <ul className="acts">
            {report.hours.ways.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </section>
      </Panel>
      <Panel name={say("season.whatFollowsWhat")}>
        <Clashes year={year} />
        <Rotation turns={report.turns} />
      </Panel>
      <p className="yearmore">
        <a href={`/api/gardens/${garden.id}/season.ics`} download>
          {say("season.theSeasonAsACalendarFile")}
        </a>{" "}
        · <Link to={`/gardens/${garden.id}/week`}>{say("season.thisWeek")}</Link> ·{" "}
        <button type="button" className="plain" onClick={() => window.print()}>
          {say("season.printTheYear")}
        </button>
      </p>
      {year.may_edit && report.rows.length > 0 && <CloseSeason garden={garden.id} closing={report.closing} />}
    </main>
  );
}

interface RowProps {
  row: Schemas["YearRow"];
  of: Schemas["Standing"] | undefined;
  line: StructureLine | undefined;
  scale: Scale;
  names: number;
  report: Year["report"];
  onMove: ((planting: string, day: number) => void) | null;
  onPut: () => void;
}

/** One structure through the year. */
function Row({ row, of, line, scale, names, report, onMove, onPut }: RowProps) {
  if (!of) return null;
  const ill = row.growing.filter((growing) => growing.verdict !== "good");
  return (
    <section
      className="yearrow"
      style={{ gridTemplateColumns: names ? `${names}px 1fr` : "1fr" }}
      aria-label={of.name}
    >
      <div className="yearname">
        <Link to={`/structures/${of.id}`}>{of.name}</Link>
        <span className="quiet narrow">{row.growing.map((growing) => growing.name).join(" · ")}</span>
      </div>
      <div>
        <YearLane row={row} line={line} scale={scale} report={report} onMove={onMove} onPut={onPut} />
        {ill.map((growing) => (
          <p key={growing.planting} className="yearnote">
            {row.growing.length > 1 && <strong>{growing.name}. </strong>}
            {growing.words} {growing.instead}
          </p>
        ))}
      </div>
    </section>
  );
}
