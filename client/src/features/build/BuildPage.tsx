import Button from "@mui/material/Button";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import { useCallback, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";

import { type Building, useBuilding } from "../../api/building";
import { useGarden } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { Tick } from "../../ui/Tick";
import { Before } from "./Before";
import { PullTests } from "./PullTests";
import { StakeOut } from "./StakeOut";
import { StepView } from "./StepView";
import { useAwake } from "./useAwake";
import { useRecord, type Written } from "./useRecord";
import { say } from "../../texts/say";

const PARTS = [
  ["before", say("build.before")],
  ["stake", say("build.stakeOut")],
  ["steps", say("build.steps")],
  ["pulls", say("build.pullTest")],
  ["down", say("build.takingDown")],
  ["paper", say("build.paper")],
] as const;
type Part = (typeof PARTS)[number][0];
const isPart = (text: string | null): text is Part => PARTS.some(([key]) => key === text);

/** Building one structure: before, stake-out, steps with their ticks, taking down. */
export function BuildPage() {
  const id = Number(useParams().structureId);
  const building = useBuilding(id);
  const garden = useGarden(building.data?.garden ?? 0);
  if (building.isError && !building.data) return <Faulty error={building.error} />;
  if (!building.data) return <p className="page quiet">{say("common.loading")}</p>;
  return (
    <>
      <Bar {...(garden.data ? { garden: garden.data } : {})}>
        <span className="grow trail">
          <Link to={`/gardens/${building.data.garden}`}>{garden.data?.name ?? "garden"}</Link> /{" "}
          <Link to={`/structures/${id}`}>{building.data.report.name}</Link>
        </span>
      </Bar>
      <Work building={building.data} />
    </>
  );
}

function Work({ building }: { building: Building }) {
  const { report } = building;
  const written = useRecord(building);
  const screen = useAwake();
  const [round, setRound] = useState(false);
  const [search, setSearch] = useSearchParams();
  const ticks = written.record?.ticks ?? {};
  const done = report.steps.filter((step) => ticks[step.key]).length;
  const next = report.steps.findIndex((step) => !ticks[step.key]);
  const asked = search.get("part");
  const part = isPart(asked) ? asked : done > 0 ? "steps" : "before";
  const number = Math.min(
    Math.max(Number(search.get("step") ?? (next < 0 ? report.steps.length : next + 1)) - 1, 0),
    report.steps.length - 1,
  );
  const go = useCallback(
    (to: Part, step?: number) =>
      setSearch(step === undefined ? { part: to } : { part: to, step: String(step + 1) }, {
        replace: to === part,
      }),
    [setSearch, part],
  );
  const goTo = useCallback((step: number) => go("steps", step), [go]);
  return (
    <main className="page buildpage">
      <h1 style={{ overflowWrap: "anywhere" }}>{say("build.build", { name: report.name })}</h1>
      <p className="quiet">
        {say("build.onOfStepsDonePlan", {
          family: report.family,
          bed: report.bed,
          done,
          length: report.steps.length,
          fingerprint: report.fingerprint,
        })}
      </p>
      <p className="noprint actions">
        <Button
          className="strong narrowstrong"
          href={`/api/structures/${building.id}/build.pdf?form=${building.units === "imperial" ? "Letter" : "A4"}`}
        >
          {say("build.printTheBuildSheet")}
        </Button>
        <Button component={Link} to={`/structures/${building.id}/parts`}>
          {say("common.shoppingList")}
        </Button>
      </p>
      {report.unprinted && (
        <p role="alert" className="noprint refusal">
          {report.unprinted}
        </p>
      )}
      <AsBuilt building={building} written={written} done={done === report.steps.length} />
      {screen.can && (
        <Tick label={say("build.keepTheScreenAwake")} checked={screen.awake} onTick={screen.setAwake} />
      )}
      <Tabs
        value={part}
        onChange={(_event, to: Part) => go(to)}
        variant="scrollable"
        scrollButtons={false}
        aria-label={say("build.partsOfTheWork")}
      >
        {PARTS.map(([key, name]) => (
          <Tab key={key} value={key} label={name} />
        ))}
      </Tabs>
      {part === "before" && <Before building={building} />}
      {part === "stake" && <StakeOut building={building} />}
      {part === "steps" && (
        <div className="steps">
          <div className="steplist">
            <ol>
              {report.steps.map((step, i) => (
                <li key={step.key}>
                  <button
                    type="button"
                    className="steprow"
                    aria-current={i === number ? "step" : undefined}
                    onClick={() => go("steps", i)}
                  >
                    {ticks[step.key] ? (
                      <span role="img" aria-label={say("build.done")}>
                        ✓
                      </span>
                    ) : (
                      <span aria-hidden="true">{i + 1}</span>
                    )}
                    <span>
                      {step.title}
                      {step.differs.length > 0 && (
                        <span className="quiet"> {say("build.differsFromTheDesign")}</span>
                      )}
                    </span>
                  </button>
                </li>
              ))}
            </ol>
            {report.joined && (
              <div className="joined">
                <p>
                  <strong>
                    {report.joined.now === "ground"
                      ? say("build.joinedOnTheGround")
                      : say("build.joinedInPlace")}
                  </strong>{" "}
                  {report.joined.why}
                </p>
                {building.may_edit && (
                  <p>
                    <button
                      type="button"
                      className="plain"
                      onClick={() => report.joined && written.join(report.joined.joining)}
                    >
                      {report.joined.other === "ground"
                        ? say("build.joinItOnTheGround")
                        : say("build.joinItInPlace")}
                    </button>
                    <br />
                    <span className="quiet">{report.joined.other_why}</span>
                  </p>
                )}
              </div>
            )}
          </div>
          <StepView
            building={building}
            steps={report.steps}
            number={number}
            written={written}
            onGo={goTo}
            round={round}
            onRound={setRound}
          />
        </div>
      )}
      {part === "pulls" && <PullTests building={building} written={written} />}
      {part === "paper" && <Papers id={building.id} units={building.units} />}
      {part === "down" && (
        <ol className="down">
          {report.down.map((step) => (
            <li key={step.key}>
              <strong>{step.undo}</strong>
              {step.people > 1 && say("build.people", { people: step.people })}
              {step.springs && (
                <p className="caution" role="note">
                  <strong>{say("build.takeCare2")}</strong> {step.springs}
                </p>
              )}
            </li>
          ))}
        </ol>
      )}
      <p className="quiet judgement">{report.judgement}</p>
    </main>
  );
}

/** What goes out of it: to print, to draw on with, to look at elsewhere. */
function Papers({ id, units }: { id: number; units: Building["units"] }) {
  const at = `/api/structures/${id}`;
  const sizes = units === "imperial" ? (["Letter", "A4"] as const) : (["A4", "Letter"] as const);
  return (
    <section>
      <h2>{say("build.toPrint")}</h2>
      <p className="actions">
        {sizes.map((size) => (
          <Button key={size} href={`${at}/build.pdf?form=${size}`}>
            {say("build.buildSheet", { size })}
          </Button>
        ))}
      </p>
      <h2>{say("build.tables")}</h2>
      <p className="actions">
        <Button href={`${at}/parts.csv`}>{say("build.parts")}</Button>
        <Button href={`${at}/cuts.csv`}>{say("build.cuts")}</Button>
        <Button href={`${at}/stakes.csv`}>{say("build.stakeOut")}</Button>
      </p>
      <h2>{say("build.drawings")}</h2>
      <p className="actions">
        <Button href={`${at}/views.svg`}>{say("build.viewsAsSvg")}</Button>
        <Button href={`${at}/views.dxf`}>{say("build.viewsAsDxfInMillimetres")}</Button>
        <Button href={`${at}/round.glb`}>{say("build.n3dModelAsGltf")}</Button>
      </p>
    </section>
  );
}

/** How it stands as it went in, and whether the plan has gone on since. */
function AsBuilt({ building, written, done }: { building: Building; written: Written; done: boolean }) {
  const { stood, plan_changed: changed } = building.report;
  if (!written.record) return null;
  const short = stood.fixes.length > 0;
  return (
    <div className="stood">
      <p role="status" className={short ? "weak" : undefined}>
        {stood.text}
      </p>
      {stood.like && <p className="quiet">{stood.like}</p>}
      {stood.fixes.length > 0 && (
        <>
          <p>{say("build.whatWouldHelp")}</p>
          <ul className="still">
            {stood.fixes.map((fix) => (
              <li key={fix.words}>
                {fix.words}: {fix.limit_text}
                {fix.holds ? say("build.holds") : say("build.stillTooWeak")}, {fix.cost_text}{" "}
                {building.may_edit && (
                  <Button
                    size="small"
                    onClick={() =>
                      written.differ(
                        [
                          {
                            option: fix.option,
                            value: fix.value as string,
                            member: "",
                            step: null,
                            note: "",
                          },
                        ],
                        fix.words,
                      )
                    }
                  >
                    {say("build.solved")}
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {changed && (
        <p>
          {changed}{" "}
          {building.may_edit && (
            <Button size="small" onClick={written.toPlan}>
              {say("build.buildToTheCurrentDesign")}
            </Button>
          )}
        </p>
      )}
      {done && !written.record.stands && building.may_edit && (
        <Button className="strong" onClick={written.stands}>
          {say("build.markAsBuilt")}
        </Button>
      )}
      {written.record.stands && <p>{say("build.builtOn", { stands: written.record.stands })}</p>}
    </div>
  );
}
