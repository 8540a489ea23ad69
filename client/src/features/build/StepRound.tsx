import { useEffect, useMemo, useState } from "react";

import { type Step, useBuiltRound } from "../../api/building";
import { useStage } from "../../drawing/round/useStage";
import { say } from "../../texts/say";

interface Props {
  id: number;
  steps: readonly Step[];
  number: number;
  onGo: (number: number) => void;
}

const STEP_MS = 1600;
const NONE: ReadonlySet<string> = new Set();

/** The structure in the round as far as a step has built it; it plays the steps one after the other. */
export default function StepRound({ id, steps, number, onGo }: Props) {
  const found = useBuiltRound(id);
  const [playing, setPlaying] = useState(false);
  const fresh = useMemo(() => new Set(steps[number]?.members ?? []), [steps, number]);
  const showing = useMemo(() => {
    if (!found.data) return null;
    const { solid, person } = found.data;
    const stands = new Set(steps.slice(0, number + 1).flatMap((step) => step.members));
    const there = <Part extends { member: string }>(parts: readonly Part[]) =>
      parts.filter((part) => stands.has(part.member.replace(/^grip/, "post")));
    return {
      solid: { ...solid, bars: there(solid.bars), strands: there(solid.strands), climbers: [] },
      foliage: [],
      week: 0,
      weak: NONE,
      short: false,
      lit: fresh,
      sun: null,
      person,
    };
  }, [found.data, steps, number, fresh]);
  const { box, canvas, blind, onKeyDown } = useStage(showing);
  useEffect(() => {
    if (!playing) return;
    const timer = setTimeout(() => {
      if (number + 1 < steps.length) onGo(number + 1);
      else setPlaying(false);
    }, STEP_MS);
    return () => clearTimeout(timer);
  }, [playing, number, steps.length, onGo]);
  const play = () => {
    if (!playing && number + 1 >= steps.length) onGo(0);
    setPlaying(!playing);
  };
  return (
    <div className="stepround">
      <div className="roundbox" ref={box}>
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={say("build.n3dViewAfterStepTurnIt", {
            number: number + 1,
            title: steps[number]?.title ?? "",
          })}
          onKeyDown={onKeyDown}
        />
        {blind && <p className="quiet roundblind">{say("build.thisBrowserCannotShowThe3d")}</p>}
      </div>
      <button type="button" className="plain" onClick={play}>
        {playing ? say("build.stop") : say("build.playTheSteps")}
      </button>
    </div>
  );
}
