import { useEffect, useMemo } from "react";

import type { Edit, Schemas } from "../../api/client";
import { useSession } from "../../api/queries";
import type { Task, Week } from "../../api/season";
import { useFresh } from "../../api/useFresh";
import { editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { useWrites } from "../../queue/useQueue";
import { editsOf, laneOf } from "../../queue/writes";
import { say } from "../../texts/say";

type Mark = Schemas["Marked"];
export type Finding = Schemas["Found"]["found"];
type Marks = Record<string, Mark | null>;

const LONGEST = 58; // letters of a key that leave room for what it is

/** What was marked of each structure, by its key. */
function marksOf(edits: readonly Edit[]): Map<string, Marks> {
  const found = new Map<string, Marks>();
  for (const edit of edits) {
    if (edit.kind !== "diary" || !edit.change?.structure) continue;
    found.set(edit.change.structure, { ...found.get(edit.change.structure), ...edit.change.marks });
  }
  return found;
}

/** A week with what is marked and has not got there. */
function withMarks(week: Week, marks: Map<string, Marks>): Week {
  if (!marks.size) return week;
  const visit = (now: Schemas["VisitReport"]): Schemas["VisitReport"] => {
    const own = marks.get(now.structure);
    if (!own) return now;
    const tasks = now.tasks.map((task) => {
      if (!(task.key in own)) return task;
      const mark = own[task.key];
      return { ...task, state: mark?.state ?? null, note: mark?.note ?? "" };
    });
    const open = (those: readonly Task[]) =>
      those.reduce((sum, task) => sum + (task.state === null ? task.minutes : 0), 0);
    return { ...now, tasks, minutes: now.minutes - open(now.tasks) + open(tasks) };
  };
  const day = (now: Schemas["DayReport"]): Schemas["DayReport"] => {
    const visits = now.visits.map(visit);
    return { ...now, visits, minutes: visits.reduce((sum, each) => sum + each.minutes, 0) };
  };
  const { report } = week;
  return {
    ...week,
    report: {
      ...report,
      now: report.now && day(report.now),
      overdue: report.overdue.map(visit),
      coming: report.coming.map(day),
    },
  };
}

/** A week as it is known here, and how to mark its tasks whatever the line does. */
export function useMarks(week: Week) {
  const fresh = useFresh();
  const session = useSession();
  const writes = useWrites(laneOf(week.id));
  useEffect(
    () =>
      queue.onDone((write) => {
        const done = marksOf(editsOf(write));
        if (done.size) fresh.week(week.id, (now) => withMarks(now, done));
      }),
    [fresh, week.id],
  );
  const shown = useMemo(
    () => withMarks(week, marksOf(writes.filter((write) => write.state !== "refused").flatMap(editsOf))),
    [week, writes],
  );
  const put = (structure: Schemas["Standing"], change: Schemas["DiaryChange"], words: string) =>
    queue.put(
      editsWrite(
        week.id,
        [
          {
            kind: "diary",
            act: "add",
            key: `${structure.key.slice(0, LONGEST)}-diary`,
            change: {
              name: say("season.diaryOf", { slice: structure.name.slice(0, 110) }),
              structure: structure.key,
              ...change,
            },
          },
        ],
        `${structure.name}: ${words}`,
      ),
    );
  const mark = (structure: Schemas["Standing"], task: Task, state: Mark["state"] | null) => {
    const at = new Date().toISOString();
    const said = state && { state, at, who: session.data?.name ?? "", note: "", picked: null };
    const words = `${task.title}, ${state?.replace("-", " ") ?? say("season.stillToDo")}`;
    put(structure, { marks: { [task.key]: said } }, words);
  };
  const find = (structure: Schemas["Standing"], day: string, found: Finding) => {
    const at = new Date().toISOString();
    const said = { found, at, who: session.data?.name ?? "", note: "" };
    put(structure, { storms: { [day]: said } }, say("season.afterTheStorm2", { found }));
  };
  const built = (structure: Schemas["Standing"]) => {
    const at = new Date().toISOString();
    const said = { state: "done" as const, at, who: session.data?.name ?? "", note: "", picked: null };
    put(structure, { marks: { [`${week.report.season}.build.1`]: said } }, "stands");
  };
  return { shown, mark, find, built };
}

export type Marking = ReturnType<typeof useMarks>["mark"];
