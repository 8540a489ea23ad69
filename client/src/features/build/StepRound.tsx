import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";

import { type Step, useBuiltRound } from "../../api/building";
import { stage, type Stage } from "../../drawing/round/stage";
import { useSize } from "../../drawing/useSize";

interface Props {
  id: number;
  steps: readonly Step[];
  number: number;
  onGo: (number: number) => void;
}

const STEP_MS = 1600;
const TURN = 0.16; // of a turn by one key [rad]
const KEYS: Record<string, [number, number, number]> = {
  ArrowLeft: [-TURN, 0, 0],
  ArrowRight: [TURN, 0, 0],
  ArrowUp: [0, TURN, 0],
  ArrowDown: [0, -TURN, 0],
  "+": [0, 0, 0.12],
  "-": [0, 0, -0.12],
};
const NONE: ReadonlySet<string> = new Set();

/** The structure in the round as far as a step has built it; it plays the steps one after the other. */
export default function StepRound({ id, steps, number, onGo }: Props) {
  const found = useBuiltRound(id);
  const { ref, width, height } = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<Stage | null>(null);
  const [blind] = useState(() => document.createElement("canvas").getContext("webgl2") === null);
  const [playing, setPlaying] = useState(false);
  const fresh = useMemo(() => new Set(steps[number]?.members ?? []), [steps, number]);
  const solid = useMemo(() => {
    if (!found.data) return null;
    const stands = new Set(steps.slice(0, number + 1).flatMap((step) => step.members));
    const there = <Part extends { member: string }>(parts: readonly Part[]) =>
      parts.filter((part) => stands.has(part.member.replace(/^grip/, "post")));
    const { solid: whole } = found.data;
    return { ...whole, bars: there(whole.bars), strands: there(whole.strands), climbers: [] };
  }, [found.data, steps, number]);
  useEffect(() => {
    if (!canvas.current || blind) return;
    held.current = stage(canvas.current, (name) =>
      getComputedStyle(document.documentElement).getPropertyValue(name).trim(),
    );
    return () => {
      held.current?.close();
      held.current = null;
    };
  }, [blind]);
  useEffect(() => {
    if (width > 0) held.current?.size(width, height);
  }, [width, height]);
  useEffect(() => {
    if (solid && found.data)
      held.current?.show({
        solid,
        foliage: [],
        week: 0,
        weak: NONE,
        short: false,
        lit: fresh,
        sun: null,
        person: found.data.person,
      });
  }, [solid, fresh, found.data, width]);
  useEffect(() => {
    if (!playing) return;
    const timer = setTimeout(() => {
      if (number + 1 < steps.length) onGo(number + 1);
      else setPlaying(false);
    }, STEP_MS);
    return () => clearTimeout(timer);
  }, [playing, number, steps.length, onGo]);
  const onKey = (event: KeyboardEvent) => {
    const turn = KEYS[event.key];
    if (!turn) return;
    event.preventDefault();
    held.current?.turn(...turn);
  };
  const play = () => {
    if (!playing && number + 1 >= steps.length) onGo(0);
    setPlaying(!playing);
  };
  return (
    <div className="stepround">
      <div className="roundbox" ref={ref}>
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={`In the round after step ${number + 1}: ${steps[number]?.title ?? ""}. Turn it with the arrow keys.`}
          onKeyDown={onKey}
        />
        {blind && <p className="quiet roundblind">This browser draws nothing in the round.</p>}
      </div>
      <button type="button" className="plain" onClick={play}>
        {playing ? "stop" : "play the steps"}
      </button>
    </div>
  );
}
