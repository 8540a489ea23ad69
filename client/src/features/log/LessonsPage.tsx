import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useParams } from "react-router";

import { type Schemas } from "../../api/client";
import { useLessons } from "../../api/log";
import { useGarden } from "../../api/queries";
import { saidOf } from "../../api/saidOf";
import { askEdits, changePlace } from "../../queue/asks";
import { say } from "../../texts/say";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { Tick } from "../../ui/Tick";

type Lesson = Schemas["LessonOut"];
type Heeded = Schemas["LessonsOut"]["ignores"][number];
type Edit = Schemas["EditsIn"]["edits"][number];

const HEEDED = ["break", "harvest", "treatment"] as const;
const AT_ONCE = {
  break: "lessons.whatBroke",
  harvest: "lessons.harvestsMove",
  treatment: "lessons.treatmentsClose",
} as const;

/** What the log teaches: before, now, after, on what evidence; nothing is used until somebody accepts it. */
export function LessonsPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const lessons = useLessons(id);
  const failed = garden.error ?? lessons.error;
  if (failed && !lessons.data) return <Faulty error={failed} garden={id} />;
  if (!garden.data) return <p className="page quiet">{say("common.loading")}</p>;
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page logpage">
        <h1>{say("lessons.title")}</h1>
        <p>{say("lessons.nothingIsUsedUntilYouAccept")}</p>
        <p className="actions noprint">
          <Link to={`/gardens/${id}/log`}>{say("log.log")}</Link>{" "}
          <Link to={`/gardens/${id}/years`}>{say("years.title")}</Link>
        </p>
        {!lessons.data && <p className="quiet">{say("common.calculating")}</p>}
        {lessons.data?.lessons.length === 0 && <p className="quiet">{say("lessons.nothingYet")}</p>}
        {lessons.data?.may_edit && <AtOnce garden={id} ignores={lessons.data.ignores} />}
        {lessons.data?.lessons.map((lesson) => (
          <LessonCard key={lesson.report.key} garden={id} lesson={lesson} mayEdit={lessons.data.may_edit} />
        ))}
      </main>
    </>
  );
}

/** What entries change by themselves, each to be refused. */
function AtOnce({ garden, ignores }: { garden: number; ignores: readonly Heeded[] }) {
  const [refusal, setRefusal] = useState("");
  const [refused, setRefused] = useState(ignores);
  const choose = (kind: Heeded, heeded: boolean) => {
    const rest = refused.filter((each) => each !== kind);
    const now = heeded ? rest : [...rest, kind];
    setRefused(now);
    changePlace(garden, { ignores: now }, say(AT_ONCE[kind]))
      .then(() => setRefusal(""))
      .catch((error: unknown) => {
        setRefused(ignores);
        setRefusal(saidOf(error));
      });
  };
  return (
    <section className="atonce" aria-label={say("lessons.atOnce")}>
      <h2>{say("lessons.atOnce")}</h2>
      {HEEDED.map((kind) => (
        <Tick
          key={kind}
          label={say(AT_ONCE[kind])}
          checked={!refused.includes(kind)}
          onTick={(checked) => choose(kind, checked)}
        />
      ))}
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </section>
  );
}

/** What is sent so that a lesson is used, or is not any more. */
function editOf({ report, use, stop }: Lesson, using: boolean): Edit {
  if (report.bed) {
    const tested = using ? report.tested : null;
    return { kind: "bed", act: "change", key: report.bed, change: { tested } };
  }
  if (report.structure) {
    return {
      kind: "structure",
      act: "change",
      key: report.structure,
      change: { options: { [report.option]: report.value } },
    };
  }
  return { kind: "place", change: { taught: using ? use : stop } };
}

function LessonCard({ garden, lesson, mayEdit }: { garden: number; lesson: Lesson; mayEdit: boolean }) {
  const { report } = lesson;
  const [refusal, setRefusal] = useState("");
  const [sending, setSending] = useState(false);
  const choose = async (using: boolean) => {
    setSending(true);
    try {
      const words = say(using ? "lessons.usedWords" : "lessons.stoppedWords", { title: report.title });
      await askEdits(garden, [editOf(lesson, using)], words);
      setRefusal("");
    } catch (error) {
      setRefusal(saidOf(error));
    }
    setSending(false);
  };
  return (
    <article className="lesson" aria-label={report.title}>
      <h2>{report.title}</h2>
      <p>{report.evidence}</p>
      {report.lines.length > 0 && (
        <table className="lessonlines">
          <thead>
            <tr>
              <td />
              <th>{say("lessons.tables")}</th>
              <th>{say("lessons.now")}</th>
              <th>{say("lessons.after")}</th>
            </tr>
          </thead>
          <tbody>
            {report.lines.map((line) => (
              <tr key={line.label}>
                <th scope="row">{line.label}</th>
                <td data-label={say("lessons.tables")}>{line.before}</td>
                <td data-label={say("lessons.now")}>{line.now}</td>
                <td data-label={say("lessons.after")}>{line.after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {report.moves.length > 0 && (
        <>
          <h3>{say("lessons.whatItMoves")}</h3>
          <ul>
            {report.moves.map((move) => (
              <li key={move}>{move}</li>
            ))}
          </ul>
        </>
      )}
      {report.caution && <p className="quiet">{report.caution}</p>}
      {report.used && <p>{say(report.structure ? "lessons.isUsedUndo" : "lessons.isUsed")}</p>}
      {mayEdit && (report.taught.length > 0 || report.bed || (report.structure && !report.used)) && (
        <Button variant="outlined" disabled={sending} onClick={() => void choose(!report.used)}>
          {report.used ? say("lessons.stopUsing") : say("lessons.use")}
        </Button>
      )}
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </article>
  );
}
