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

const PARTS = [
  ["before", "Before"],
  ["stake", "Stake-out"],
  ["steps", "Steps"],
  ["pulls", "Pull test"],
  ["down", "Taking down"],
  ["paper", "Paper"],
] as const;
type Part = (typeof PARTS)[number][0];
const isPart = (text: string | null): text is Part => PARTS.some(([key]) => key === text);

/** Building one structure: before, stake-out, steps with their ticks, taking down. */
export function BuildPage() {
  const id = Number(useParams().structureId);
  const building = useBuilding(id);
  const garden = useGarden(building.data?.garden ?? 0);
  if (building.isError && !building.data) return <Faulty error={building.error} />;
  if (!building.data) return <p className="page quiet">Loading…</p>;
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
      <h1 style={{ overflowWrap: "anywhere" }}>Build {report.name}</h1>
      <p className="quiet">
        {report.family} on {report.bed} · {done} of {report.steps.length} steps done · plan{" "}
        {report.fingerprint}
      </p>
      <p className="noprint actions">
        <Button
          className="strong narrowstrong"
          href={`/api/structures/${building.id}/build.pdf?form=${building.units === "imperial" ? "Letter" : "A4"}`}
        >
          Print the build sheet
        </Button>
        <Button component={Link} to={`/structures/${building.id}/parts`}>
          Shopping list
        </Button>
      </p>
      {report.unprinted && (
        <p role="alert" className="noprint refusal">
          {report.unprinted}
        </p>
      )}
      <AsBuilt building={building} written={written} done={done === report.steps.length} />
      {screen.can && <Tick label="Keep the screen awake" checked={screen.awake} onTick={screen.setAwake} />}
      <Tabs
        value={part}
        onChange={(_event, to: Part) => go(to)}
        variant="scrollable"
        scrollButtons={false}
        aria-label="Parts of the work"
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
                      <span role="img" aria-label="done">
                        ✓
                      </span>
                    ) : (
                      <span aria-hidden="true">{i + 1}</span>
                    )}
                    <span>
                      {step.title}
                      {step.differs.length > 0 && <span className="quiet"> · differs from the design</span>}
                    </span>
                  </button>
                </li>
              ))}
            </ol>
            {report.joined && (
              <div className="joined">
                <p>
                  <strong>
                    {report.joined.now === "ground" ? "Joined on the ground." : "Joined in place."}
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
                      {report.joined.other === "ground" ? "Join it on the ground" : "Join it in place"}
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
              {step.people > 1 && ` ${step.people} people.`}
              {step.springs && (
                <p className="caution" role="note">
                  <strong>Take care.</strong> {step.springs}
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
      <h2>To print</h2>
      <p className="actions">
        {sizes.map((size) => (
          <Button key={size} href={`${at}/build.pdf?form=${size}`}>
            Build sheet, {size}
          </Button>
        ))}
      </p>
      <h2>Tables</h2>
      <p className="actions">
        <Button href={`${at}/parts.csv`}>Parts</Button>
        <Button href={`${at}/cuts.csv`}>Cuts</Button>
        <Button href={`${at}/stakes.csv`}>Stake-out</Button>
      </p>
      <h2>Drawings</h2>
      <p className="actions">
        <Button href={`${at}/views.svg`}>Views as SVG</Button>
        <Button href={`${at}/views.dxf`}>Views as DXF, in millimetres</Button>
        <Button href={`${at}/round.glb`}>3D model as glTF</Button>
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
          <p>What would help:</p>
          <ul className="still">
            {stood.fixes.map((fix) => (
              <li key={fix.words}>
                {fix.words}: {fix.limit_text}
                {fix.holds ? ", holds" : ", still too weak"}, {fix.cost_text}{" "}
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
                    Solved
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
              Build to the current design
            </Button>
          )}
        </p>
      )}
      {done && !written.record.stands && building.may_edit && (
        <Button className="strong" onClick={written.stands}>
          Mark as built
        </Button>
      )}
      {written.record.stands && <p>Built on {written.record.stands}.</p>}
    </div>
  );
}
