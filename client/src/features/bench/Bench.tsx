import useMediaQuery from "@mui/material/useMediaQuery";
import { lazy, Suspense, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";

import type { Report, Schemas } from "../../api/client";
import { useGarden } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { Bar } from "../../ui/Bar";
import { Choices } from "../../ui/Choices";
import { Conflicts } from "../../ui/Conflicts";
import { useUndoKeys } from "../../ui/useUndoKeys";
import { Panel } from "../../ui/Panel";
import { Answer, AnswerMore } from "./Answer";
import { Chain } from "./Chain";
import { Controls } from "./Controls";
import { LinkPanel } from "./LinkPanel";
import { MeasureEditor } from "./MeasureEditor";
import { Remarks, Warnings, warningsOf } from "./Remarks";
import { Sensitivity } from "./Sensitivity";
import { SeasonChart } from "./SeasonChart";
import { useDraft } from "./useDraft";
import { useReport } from "./useReport";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  catalogue: Schemas["Catalogue"];
}

const Round = lazy(() => import("./Round"));
const ROOMY = "(min-width: 1134px)"; // from which a sheet between its columns has room for notes
const WINDS = [say("bench.noWind"), say("bench.weeklyWind"), say("bench.designGust")] as const;

/** A day written in the address, none where it is not one. */
function dayIn(text: string | null): string | null {
  const time = text && /^\d{4}-\d\d-\d\d$/.test(text) ? Date.parse(text) : NaN;
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text ?? "") ? text : null;
}

/** The week of the season that a day lies in, the nearest where it is out of it; the worst without a day. */
function weekOf(report: Report | null, day: string | null): number {
  if (!report) return 0;
  if (day === null) return report.headline.week;
  return Math.max(report.weeks.filter((each) => each.date <= day).length - 1, 0);
}

/** The bench: controls, the drawing, the chain and the tide round one structure in hand. */
export function Bench({ structure, catalogue }: Props) {
  const hand = useDraft(structure);
  const { draft, undo, redo } = hand;
  const garden = useGarden(structure.garden);
  const [params, setParams] = useSearchParams();
  const asked = dayIn(params.get("week"));
  const round = params.get("view") === "round";
  const open = params.get("link");
  const { report, problems } = useReport(structure.id, draft, asked, structure.units);
  const [pointed, setPointed] = useState<{ link: string | null; member: string | null }>({
    link: null,
    member: null,
  });
  const [wind, setWind] = useState<0 | 1 | 2>(1);
  useUndoKeys(undo, redo);

  const look = (name: string, value: string | null) =>
    setParams(
      (now) => {
        if (value === null) now.delete(name);
        else now.set(name, value);
        return now;
      },
      { replace: name === "week" || name === "hour" },
    );
  const week = weekOf(report, asked);
  const weakest = report?.weeks[week]?.weakest ?? "";
  const members = useMemo(() => new Map(report?.links.map((link) => [link.key, link.members])), [report]);
  const lit = useMemo(
    () => new Set(members.get(pointed.link ?? open ?? "") ?? []),
    [members, pointed.link, open],
  );
  const weak = useMemo(() => new Set(members.get(weakest)), [members, weakest]);
  const litLink =
    pointed.link ??
    report?.links.find((link) => pointed.member && link.members.includes(pointed.member))?.key ??
    null;
  const [member, setMember] = useState("");
  const openMember = (member: string) => {
    setMember(member);
    const link = report?.links
      .filter((each) => each.members.includes(member))
      .sort((a, b) => (b.utilisation[week] ?? 0) - (a.utilisation[week] ?? 0))[0];
    if (link) look("link", link.key);
  };
  const onSheet = useMediaQuery(ROOMY) && !round;
  const notes = useMemo(
    () => (onSheet ? warningsOf(report).map((remark) => remark.text) : []),
    [report, onSheet],
  );
  const family = catalogue.families.find((each) => each.key === structure.family);
  const larger = report?.exaggeration ?? 1;
  const link = report?.links.find((each) => each.key === open);
  const short = report?.links.find((each) => each.key === weakest)?.states[week] === "inadequate";
  return (
    <>
      <Bar {...(garden.data ? { garden: garden.data } : {})}>
        <span className="grow trail">
          <Link to={`/gardens/${structure.garden}`}>{garden.data?.name ?? "garden"}</Link> /{" "}
          {structure.bed_name} / <h1>{draft.name}</h1>
        </span>
        {structure.may_edit ? (
          <>
            <button type="button" className="plain" onClick={undo} disabled={!hand.canUndo} title="Ctrl Z">
              {say("bench.undo")}
            </button>
            <button
              type="button"
              className="plain"
              onClick={redo}
              disabled={!hand.canRedo}
              title="Ctrl Shift Z"
            >
              {say("bench.redo")}
            </button>
          </>
        ) : (
          <span className="quiet narrow saving">{say("bench.viewOnlyYourChangesAreNot")}</span>
        )}
        <Link to={`/structures/${structure.id}/build`}>{say("bench.build")}</Link>
        <Link to={`/structures/${structure.id}/parts`}>
          {report ? say("bench.partsCost", { cost: report.cost_text }) : say("bench.parts")}
        </Link>
      </Bar>
      {hand.conflict && (
        <Conflicts
          things={[
            {
              kind: "structure",
              key: structure.key,
              name: draft.name,
              revision: hand.conflict.saved.revision,
              differences: hand.conflict.differences,
            },
          ]}
          mineFirst={hand.mineFirst}
          onSettle={(keep) => hand.settle((path) => keep("structure", structure.key, path))}
        />
      )}
      <main className="bench">
        <div className="side">
          <Panel name={say("bench.theOptions")}>
            {link && report ? (
              <LinkPanel
                structure={structure}
                draft={draft}
                link={link}
                weakest={link.key === weakest}
                short={report.headline.state === "inadequate"}
                fails={link.states[week] === "inadequate"}
                member={link.members.includes(member) ? member : ""}
                week={report.weeks[week]?.label ?? ""}
                options={family?.options ?? []}
                onFix={(changes, had) =>
                  hand.change((now) => ({
                    ...now,
                    options: { ...now.options, ...changes },
                    ...(had ? { taken: had } : {}),
                  }))
                }
                onClose={() => look("link", null)}
              />
            ) : (
              family && (
                <Controls
                  structure={structure}
                  catalogue={catalogue}
                  family={family}
                  draft={draft}
                  report={report}
                  problems={[...problems, ...hand.problems]}
                  onChange={hand.change}
                  onRelease={hand.release}
                />
              )
            )}
          </Panel>
        </div>
        <div className={round ? "stage isround" : "stage"}>
          <Panel name={say("bench.theDrawing")}>
            {report && round && (
              <Suspense fallback={<p className="quiet roundblind">{say("common.loading")}</p>}>
                <Round
                  structure={structure}
                  draft={draft}
                  report={report}
                  week={week}
                  weak={weak}
                  short={short}
                  lit={lit}
                  hour={params.get("hour") === null ? null : Number(params.get("hour")) || 12}
                  onHour={(hour) => look("hour", hour === null ? null : String(hour))}
                />
              </Suspense>
            )}
            {report && !round && (
              <Sheet
                report={report}
                week={week}
                wind={wind}
                windText={report.winds[wind]}
                lit={lit}
                weak={weak}
                short={short}
                arrows={[...new Set([weakest, litLink ?? open ?? ""])]}
                onPoint={(member) => setPointed({ link: null, member })}
                onOpen={openMember}
                notes={notes}
                written={<Warnings report={report} />}
                editor={(measure, close) => (
                  <MeasureEditor
                    measure={measure}
                    system={structure.units}
                    fields={family?.options ?? []}
                    bounds={catalogue.bounds}
                    onChange={hand.change}
                    onClose={close}
                  />
                )}
              />
            )}
          </Panel>
          <div className="stagefoot">
            <button
              type="button"
              className="plain"
              aria-pressed={round}
              onClick={() => look("view", round ? null : "round")}
            >
              {round ? say("bench.n2dDrawing") : say("bench.n3dView")}
            </button>
            {!round && (
              <>
                <Choices
                  label={say("bench.windInTheDrawing")}
                  value={WINDS[wind]}
                  choices={WINDS.map((name) => [name, name])}
                  onPick={(name) => setWind(WINDS.indexOf(name) as 0)}
                />
                <span>
                  {wind === 0
                    ? say("bench.noWindNoBending")
                    : larger > 1
                      ? say("bench.bendingDrawnTimesLargerThanIt", { larger })
                      : say("bench.bendingDrawnAsLargeAsIt")}
                </span>
              </>
            )}
          </div>
        </div>
        <aside className="path" aria-label={say("bench.loadPath")}>
          {report && (
            <Panel name={say("bench.theLoadPath")}>
              {structure.broken && (
                <p role="alert" className="refusal">
                  {structure.broken}
                </p>
              )}
              <Answer report={report} />
              {!onSheet && <Warnings report={report} />}
              <Chain
                report={report}
                week={week}
                open={open}
                lit={litLink}
                onOpen={(key) => look("link", open === key ? null : key)}
                onPoint={(key) => setPointed({ link: key, member: null })}
              />
              <AnswerMore report={report} />
              <p>
                <Link to={`/structures/${structure.id}/life`}>{say("log.lifeOfThisSupport")}</Link>
              </p>
              {report.headline.beside && (
                <p className="quiet" style={{ fontSize: 13.5, marginTop: 6 }}>
                  {report.headline.beside}
                </p>
              )}
              <Remarks report={report} />
              <Sensitivity structure={structure} draft={draft} />
              <p className="hint">
                <Link to="/method">{say("common.howAscentCalculates")}</Link>
              </p>
            </Panel>
          )}
        </aside>
        {report && (
          <Panel name={say("bench.theSeason")}>
            <SeasonChart
              report={report}
              week={week}
              onWeek={(next) => look("week", report.weeks[next]?.date ?? null)}
            />
          </Panel>
        )}
      </main>
    </>
  );
}
