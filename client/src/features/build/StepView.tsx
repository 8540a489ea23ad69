import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { lazy, Suspense, useState } from "react";

import type { Building, Step } from "../../api/building";
import { Panel } from "../../ui/Panel";
import { Aloud } from "./Aloud";
import { Differs } from "./Differs";
import { Joint } from "./Joint";
import { StepDrawing } from "./StepDrawing";
import type { Written } from "./useRecord";
import { say } from "../../texts/say";

const StepRound = lazy(() => import("./StepRound"));

interface Props {
  building: Building;
  steps: readonly Step[];
  number: number;
  written: Written;
  onGo: (number: number) => void;
  round: boolean;
  onRound: (round: boolean) => void;
}

const when = (at: string) =>
  new Date(at).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** One step as it is read at the work: the drawing, what to do, the measure to hit, and the tick. */
export function StepView({ building, steps, number, written, onGo, round, onRound }: Props) {
  // what is being written belongs to one step; the drawing goes on through all of them
  const [differs, setDiffers] = useState("");
  const [noted, setNoted] = useState({ step: "", text: "" });
  const step = steps[number];
  if (!step) return null;
  const differing = differs === step.key;
  const setDiffering = (open: boolean) => setDiffers(open ? step.key : "");
  const note = noted.step === step.key ? noted.text : null;
  const setNote = (text: string | null) =>
    setNoted(text === null ? { step: "", text: "" } : { step: step.key, text });
  const tick = written.record?.ticks[step.key];
  const standing = new Set(steps.slice(0, number).flatMap((each) => each.members));
  const waiting = Object.entries(written.waiting).filter(
    ([key, each]) => each?.step === step.key && !step.differs.some((told) => told.key === key),
  );
  const done = () => {
    written.tick(step, note?.trim() ?? "");
    setNote(null);
    setDiffering(false);
    if (number + 1 < steps.length) onGo(number + 1);
  };
  return (
    <article className="step" aria-label={step.title}>
      <Panel name={say("build.theDrawing")}>
        {round ? (
          <Suspense fallback={<div className="stepround" />}>
            <StepRound id={building.id} steps={steps} number={number} onGo={onGo} />
          </Suspense>
        ) : (
          <StepDrawing
            views={building.report.views}
            standing={standing}
            fresh={new Set(step.members)}
            title={say("build.theSupportAtThisStep", { title: step.title })}
          />
        )}
      </Panel>
      <p className="drawnhow">
        <button type="button" className="plain" aria-pressed={round} onClick={() => onRound(!round)}>
          {round ? say("build.n2dDrawing") : say("build.n3dView")}
        </button>
      </p>
      <p className="quiet stepcount">
        {say("build.stepOf", { number: number + 1, length: steps.length })}
        {step.people > 1 && say("build.people2", { people: step.people })}
        {step.time && ` · ${step.time}`}
      </p>
      <h2>{step.title}</h2>
      <p className="do">{step.do}</p>
      {step.hits.length > 0 && (
        <ul className="hits">
          {step.hits.map((hit) => (
            <li key={hit}>{hit}</li>
          ))}
        </ul>
      )}
      {step.caution && (
        <p className="caution" role="note">
          <strong>{say("build.takeCare2")}</strong> {step.caution}
        </p>
      )}
      {step.uses.length > 0 && <p>{say("build.with", { things: step.uses.join(", ") })}</p>}
      {step.joint && <Joint joint={step.joint} />}
      {step.check && (
        <p>
          <strong>{say("build.look")}</strong> {step.check}
        </p>
      )}
      <p className="actions">
        <Aloud
          text={[step.title, step.do, ...step.hits, step.caution, step.check].filter(Boolean).join(" ")}
        />
      </p>
      {step.tools.length > 0 && (
        <p className="quiet">{say("build.tools2", { tools: step.tools.join(", ") })}</p>
      )}
      {(step.differs.length > 0 || waiting.length > 0) && (
        <ul className="wentin">
          {step.differs.map((each) => (
            <li key={each.key}>
              {each.text}
              {each.note && <span className="quiet"> ({each.note})</span>}{" "}
              {building.may_edit && (
                <button
                  type="button"
                  className="plain"
                  onClick={() => written.asPlanned(each.key, say("build.noAsPlanned", { text: each.text }))}
                >
                  {say("build.removeThisDifference")}
                </button>
              )}
            </li>
          ))}
          {waiting.map(([key, each]) => (
            <li key={key} className="quiet">
              {each
                ? say("build.keptHereCheckedWhenTheLine", {
                    option: each.option.replaceAll("_", " "),
                    value: String(each.value),
                  })
                : say("build.removeThisDifference")}
            </li>
          ))}
        </ul>
      )}
      {tick && (
        <p className="ticked">
          {say("build.done2", { at: when(tick.at) })}
          {tick.who && say("build.by", { who: tick.who })}.{tick.note && ` ‘${tick.note}’`}{" "}
          {building.may_edit && (
            <button type="button" className="plain" onClick={() => written.untick(step)}>
              {say("build.markAsNotDone")}
            </button>
          )}
        </p>
      )}
      {differing && (
        <Differs key={step.key} step={step} written={written} onClose={() => setDiffering(false)} />
      )}
      {building.may_edit && !differing && (
        <>
          {note !== null && (
            <TextField
              label={say("build.aNoteOnThisStep")}
              value={note}
              multiline
              slotProps={{ htmlInput: { maxLength: 300 } }}
              onChange={(event) => setNote(event.target.value)}
            />
          )}
          <p className="actions">
            {step.may_differ.length > 0 && (
              <Button onClick={() => setDiffering(true)}>{say("build.recordADifference")}</Button>
            )}
            {!tick && note === null && <Button onClick={() => setNote("")}>{say("build.addANote")}</Button>}
          </p>
          <div className="stepfoot">
            <Button disabled={number === 0} onClick={() => onGo(number - 1)}>
              {say("build.back")}
            </Button>
            {tick ? (
              <Button
                className="strong"
                disabled={number + 1 >= steps.length}
                onClick={() => onGo(number + 1)}
              >
                {say("build.next")}
              </Button>
            ) : (
              <Button className="strong big" onClick={done}>
                {say("build.done3")}
              </Button>
            )}
          </div>
        </>
      )}
      {!building.may_edit && (
        <div className="stepfoot">
          <Button disabled={number === 0} onClick={() => onGo(number - 1)}>
            {say("build.back")}
          </Button>
          <Button disabled={number + 1 >= steps.length} onClick={() => onGo(number + 1)}>
            {say("build.next")}
          </Button>
        </div>
      )}
    </article>
  );
}
