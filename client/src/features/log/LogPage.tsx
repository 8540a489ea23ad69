import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { type EntryChange, type EntryRow, type Log, type LogKind, useLog } from "../../api/log";
import { useGarden } from "../../api/queries";
import { saidOf } from "../../api/saidOf";
import { askEdits } from "../../queue/asks";
import { useWrites } from "../../queue/useQueue";
import { editsOf, laneOf } from "../../queue/writes";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { Photos } from "../../ui/Photos";
import { Pick } from "../../ui/Pick";
import { say } from "../../texts/say";
import { LogForm } from "./LogForm";
import { LogLine } from "../../ui/LogLine";
import { useLogging } from "../../ui/useLogging";

/** The log: what happened, the latest first; anything is written here in a line or by its kind. */
export function LogPage() {
  const id = Number(useParams().gardenId);
  const [search, setSearch] = useSearchParams();
  const asked = { kind: search.get("kind") ?? "", about: search.get("about") ?? "" };
  const garden = useGarden(id);
  const pages = useLog(id, asked);
  const failed = garden.error ?? pages.error;
  const log = pages.data?.pages[0];
  if (failed && !log) return <Faulty error={failed} garden={id} />;
  if (!garden.data || !log) return <p className="page quiet">{say("common.loading")}</p>;
  const only = (name: string, value: string) =>
    setSearch(
      (now) => {
        if (value) now.set(name, value);
        else now.delete(name);
        return now;
      },
      { replace: true },
    );
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page logpage">
        <h1>{say("log.log")}</h1>
        <p className="actions noprint">
          <Link to={`/gardens/${id}/lessons`}>{say("lessons.title")}</Link>{" "}
          <Link to={`/gardens/${id}/years`}>{say("years.title")}</Link>
        </p>
        {log.may_edit && <Writing log={log} about={asked.about} />}
        <section aria-label={say("log.entries")}>
          <div className="logonly noprint">
            <Pick
              label={say("log.kind")}
              value={asked.kind}
              choices={[
                { key: "", name: say("log.all") },
                ...log.kinds.map(({ key, name }) => ({ key, name })),
              ]}
              onPick={(key) => only("kind", key)}
            />
            <Pick
              label={say("log.place")}
              value={asked.about}
              choices={[
                { key: "", name: say("log.all") },
                ...log.places.map(({ key, name }) => ({ key, name })),
              ]}
              onPick={(key) => only("about", key)}
            />
          </div>
          <Waiting garden={id} />
          <Rows log={log} rows={pages.data?.pages.flatMap((page) => page.rows) ?? []} />
          {pages.hasNextPage && (
            <Button disabled={pages.isFetchingNextPage} onClick={() => void pages.fetchNextPage()}>
              {say("log.olderEntries")}
            </Button>
          )}
        </section>
      </main>
    </>
  );
}

/** A line, or a kind and its fields. */
function Writing({ log, about }: { log: Log; about: string }) {
  const [kind, setKind] = useState<LogKind | null>(null);
  const write = useLogging(log.id);
  return (
    <>
      <LogLine garden={log.id} about={about} />
      {kind ? (
        <>
          <h2>{kind.verb}</h2>
          <LogForm
            key={kind.key}
            log={log}
            kind={kind}
            about={about}
            row={null}
            onCancel={() => setKind(null)}
            onSave={(change) => {
              write(change, kind.name);
              setKind(null);
            }}
          />
        </>
      ) : (
        <div className="logkinds noprint" role="group" aria-label={say("log.kindsOfEntries")}>
          {log.kinds.map((each) => (
            <Button key={each.key} variant="outlined" onClick={() => setKind(each)}>
              {each.verb}
            </Button>
          ))}
        </div>
      )}
    </>
  );
}

/** What is written here and has not got to the server yet. */
function Waiting({ garden }: { garden: number }) {
  const writes = useWrites(laneOf(garden));
  const waiting = writes
    .filter((write) => write.state === "waiting")
    .filter((write) => editsOf(write).some((edit) => edit.kind === "entry"));
  if (!waiting.length) return null;
  return (
    <ul className="logrows" aria-label={say("log.waiting")}>
      {waiting.map((write) => (
        <li key={write.mark} className="logrow">
          <span className="quiet">{say("log.waiting")}</span> <span>{write.words}</span>
        </li>
      ))}
    </ul>
  );
}

function Rows({ log, rows }: { log: Log; rows: readonly EntryRow[] }) {
  const [open, setOpen] = useState<string | null>(null);
  const [refusal, setRefusal] = useState("");
  const save = async (row: EntryRow, act: "change" | "remove", change: EntryChange) => {
    try {
      await askEdits(
        log.id,
        [{ kind: "entry", act, key: row.key, revision: row.revision, change }],
        act === "remove" ? say("log.removed", { words: row.words }) : row.words,
      );
      setOpen(null);
      setRefusal("");
    } catch (error) {
      setRefusal(saidOf(error));
    }
  };
  if (!rows.length) return <p className="quiet">{say("log.nothingYet")}</p>;
  return (
    <>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
      <ol className="logrows">
        {rows.map((row, at) => {
          const kind = log.kinds.find(({ key }) => key === row.fields.kind);
          return (
            <li key={row.key} className="logrow">
              <span className="logday">{rows[at - 1]?.label === row.label ? "" : row.label}</span>
              <span>
                <strong>{row.words}</strong>{" "}
                {row.structure ? (
                  <Link to={`/structures/${row.structure}`}>{row.place}</Link>
                ) : (
                  <span className="quiet">{row.place}</span>
                )}
                {row.fields.note && row.fields.note !== row.words && <span> {row.fields.note}</span>}
                <Photos garden={log.id} photos={row.fields.photos} words={row.words} />
                {row.fields.who && <span className="quiet"> {row.fields.who}</span>}
              </span>
              {log.may_edit && kind && (
                <Button
                  size="small"
                  aria-expanded={open === row.key}
                  aria-label={say("log.correctEntry", { words: row.words })}
                  onClick={() => setOpen(open === row.key ? null : row.key)}
                >
                  {say("log.correct")}
                </Button>
              )}
              {open === row.key && kind && (
                <LogForm
                  log={log}
                  kind={kind}
                  about=""
                  row={row}
                  onCancel={() => setOpen(null)}
                  onSave={(change) => void save(row, "change", change)}
                  onRemove={() => void save(row, "remove", {})}
                />
              )}
            </li>
          );
        })}
      </ol>
    </>
  );
}
