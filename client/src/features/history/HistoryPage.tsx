import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";

import { type Garden } from "../../api/client";
import { useGarden, useHistory, usePast } from "../../api/queries";
import { saidOf } from "../../api/saidOf";
import { StillPlan } from "../../drawing/StillPlan";
import { askGarden } from "../../queue/asks";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { say } from "../../texts/say";

const when = (text: string) =>
  new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(text));

/**
 * Everything that was changed, by whom and when; an old state is looked at and, if wanted, made the present
 * one.
 */
export function HistoryPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const [params, setParams] = useSearchParams();
  const [said, setSaid] = useState("");
  const log = useHistory(garden.data);
  const asked = params.get("at");
  const number = asked === null ? null : Number(asked);
  const past = usePast(id, number, garden.data?.units);
  const changes = useMemo(() => log.data?.pages.flat() ?? [], [log.data]);
  if (garden.isError) return <Faulty error={garden.error} garden={id} />;
  if (!garden.data) return <p className="page quiet">{say("common.loading")}</p>;
  const look = (next: number | null) =>
    setParams(next === null ? {} : { at: String(next) }, { replace: true });
  const restore = async () => {
    try {
      await askGarden<Garden>(
        id,
        `/history/${number ?? 0}/restore`,
        {},
        say("history.backTo", { number: number ?? 0 }),
      );
      setSaid(say("history.restoredYouCanUndoIt"));
      look(null);
    } catch (error) {
      setSaid(saidOf(error));
    }
  };
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page history">
        <div>
          <h1>{say("history.history")}</h1>
          {said && (
            <p role="status" className="refusal">
              {said}
            </p>
          )}
          {changes.length === 0 && !log.isPending && (
            <p className="lead">{say("history.nothingHasBeenChangedYetEvery")}</p>
          )}
          <ol className="log" reversed>
            {changes.map((change) => (
              <li key={change.number}>
                <button
                  type="button"
                  aria-pressed={number === change.number}
                  className="logline"
                  onClick={() => look(number === change.number ? null : change.number)}
                >
                  <span className="quiet narrow">{when(change.when)}</span>
                  <span>{change.words}</span>
                  <span className="quiet">{change.who}</span>
                </button>
              </li>
            ))}
            {changes.length > 0 && !log.hasNextPage && (
              <li>
                <button
                  type="button"
                  aria-pressed={number === 0}
                  className="logline"
                  onClick={() => look(number === 0 ? null : 0)}
                >
                  <span className="quiet narrow">{say("history.before")}</span>
                  <span>{say("history.asItBegan")}</span>
                  <span />
                </button>
              </li>
            )}
          </ol>
          {log.hasNextPage && (
            <button type="button" className="plain" onClick={() => void log.fetchNextPage()}>
              {say("history.olderChanges")}
            </button>
          )}
        </div>
        {number !== null && past.data && (
          <section aria-label={say("history.theGardenThen")} className="then">
            <h2>
              {past.data.number === 0
                ? say("history.asItBegan2")
                : say("history.after", { words: past.data.words })}
            </h2>
            <div className="thenplan">
              <StillPlan plot={past.data.plot} imperial={garden.data.units === "imperial"} />
            </div>
            {past.data.since.length > 0 && garden.data.role !== "read" && (
              <p className="actions">
                <Button onClick={() => void restore()}>{say("history.restoreThisState")}</Button>
              </p>
            )}
            <h3>
              {past.data.since.length ? say("history.changedSince") : say("history.nothingWasChangedSince")}
            </h3>
            <ul className="notes">
              {past.data.since.map((words, i) => (
                <li key={i} data-mark="·">
                  {words}
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </>
  );
}
