import { useEffect, useMemo } from "react";

import type { Building } from "../../api/building";
import type { Edit, Schemas } from "../../api/client";
import { useSession } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { useWrites } from "../../queue/useQueue";
import { editsOf, laneOf } from "../../queue/writes";
import { say } from "../../texts/say";

type Change = Schemas["RecordChange"];
export type Differs = Schemas["Differs"];
export type Pull = Schemas["PullTest"];

const LONGEST = 57; // letters of a key that leave room for what it is

const today = () => new Date().toLocaleDateString("sv");

function changesOf(edits: readonly Edit[], structure: string): Change[] {
  return edits.flatMap((edit) =>
    edit.kind === "record" && edit.change?.structure === structure ? [edit.change] : [],
  );
}

/** A record with what is written and has not got there. */
function withChange(record: Building["record"], change: Change): Building["record"] {
  const all = Object.entries({ ...record?.ticks, ...change.ticks });
  const ticks = Object.fromEntries(all.flatMap(([key, tick]) => (tick ? [[key, tick] as const] : [])));
  return {
    key: record?.key ?? "",
    revision: record?.revision ?? 0,
    begun: record?.begun ?? change.begun ?? today(),
    joining: change.joining ?? record?.joining ?? "usual",
    ticks,
    stands: change.stands ?? record?.stands ?? null,
  };
}

/** What was done of a structure, as it is known here, and how to write in it whatever the line does. */
export function useRecord(building: Building) {
  const { garden, key, kept, report } = building;
  const fresh = useFresh();
  const session = useSession();
  const writes = useWrites(laneOf(garden));
  useEffect(
    () =>
      queue.onDone((write) => {
        const done = changesOf(editsOf(write), key);
        if (done.length)
          fresh.building(building.id, (now) => ({ ...now, record: done.reduce(withChange, now.record) }));
      }),
    [fresh, building.id, key],
  );
  const waiting = useMemo(
    () => changesOf(writes.filter((write) => write.state !== "refused").flatMap(editsOf), key),
    [writes, key],
  );
  const record = useMemo(() => waiting.reduce(withChange, building.record), [waiting, building.record]);
  const write = (change: Change, words: string) => {
    const edits: Edit[] = [];
    if (!record) edits.push({ kind: "structure", act: "change", key, change: { built: kept } });
    edits.push({
      kind: "record",
      act: "add",
      key: `${key.slice(0, LONGEST)}-record`,
      change: { name: report.name, structure: key, begun: today(), ...change },
    });
    queue.put(editsWrite(garden, edits, `${report.name}: ${words}`));
  };
  const at = () => new Date().toISOString();
  return {
    record,
    /** What went in otherwise and has not got there, by its key. */
    waiting: Object.assign({}, ...waiting.map((change) => change.differs ?? {})) as Record<
      string,
      Differs | null
    >,
    tick: (step: Schemas["StepReport"], note: string) =>
      write(
        { ticks: { [step.key]: { at: at(), who: session.data?.name ?? "", note } } },
        say("build.done4", { title: step.title }),
      ),
    untick: (step: Schemas["StepReport"]) =>
      write({ ticks: { [step.key]: null } }, say("build.notDone", { title: step.title })),
    differ: (those: readonly Omit<Differs, "at">[], words: string) =>
      write(
        {
          differs: Object.fromEntries(
            those.map((each) => [
              each.member ? `${each.option}@${each.member}` : each.option,
              { ...each, at: at() },
            ]),
          ),
        },
        words,
      ),
    asPlanned: (differing: string, words: string) => write({ differs: { [differing]: null } }, words),
    join: (joining: Schemas["JoinedReport"]["joining"]) => write({ joining }, say("build.joinedTheOtherWay")),
    pulled: (test: Omit<Pull, "at">) => {
      const now = at();
      write({ pulls: { [`${test.member}/${now}`]: { ...test, at: now } } }, say("build.aPullTest"));
    },
    forgetPull: (pull: string) => write({ pulls: { [pull]: null } }, say("build.aPullTestDeleted")),
    /** What a pull test says is used for the bed; nothing of it when null. */
    useForBed: (tested: Schemas["Tested"] | null) =>
      queue.put(
        editsWrite(
          garden,
          [{ kind: "bed", act: "change", key: building.bed, change: { tested } }],
          tested
            ? say("build.asThePullTestSays", { bed: report.bed })
            : say("build.asTheTableSays", { bed: report.bed }),
        ),
      ),
    stands: () => write({ stands: today() }, "stands"),
    /** From now on the plan as it is now counts. */
    toPlan: () =>
      queue.put(
        editsWrite(
          garden,
          [
            { kind: "structure", act: "change", key, change: { built: null } },
            { kind: "structure", act: "change", key, change: { built: kept } },
          ],
          say("build.builtToThePlanAsIt", { name: report.name }),
        ),
      ),
  };
}

export type Written = ReturnType<typeof useRecord>;
