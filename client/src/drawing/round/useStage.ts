import { type KeyboardEvent, useCallback, useEffect, useRef, useState } from "react";

import { useSize } from "../useSize";
import type { Showing } from "./showing";
import { stage, type Stage } from "./stage";

const STEP = 0.16; // of a turn by one key [rad]
const KEYS: Record<string, [number, number, number]> = {
  ArrowLeft: [-STEP, 0, 0],
  ArrowRight: [STEP, 0, 0],
  ArrowUp: [0, STEP, 0],
  ArrowDown: [0, -STEP, 0],
  "+": [0, 0, 0.12],
  "=": [0, 0, 0.12],
  "-": [0, 0, -0.12],
};

/** A canvas that shows something in the round: as large as its box, in the theme's inks, turned by keys. */
export function useStage(showing: Showing | null) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<Stage | null>(null);
  const [blind] = useState(() => document.createElement("canvas").getContext("webgl2") === null);
  const [look, setLook] = useState(0);
  useEffect(() => {
    if (!canvas.current || blind) return;
    held.current = stage(canvas.current, (name) =>
      getComputedStyle(document.documentElement).getPropertyValue(name).trim(),
    );
    const watcher = new MutationObserver(() => setLook((n) => n + 1));
    watcher.observe(document.documentElement, { attributes: true });
    return () => {
      watcher.disconnect();
      held.current?.close();
      held.current = null;
    };
  }, [blind]);
  useEffect(() => {
    if (width > 0) held.current?.size(width, height);
  }, [width, height]);
  useEffect(() => {
    if (showing) held.current?.show(showing);
  }, [showing, look]);
  const onKeyDown = useCallback((event: KeyboardEvent) => {
    const step = KEYS[event.key];
    if (!step) return;
    event.preventDefault();
    held.current?.turn(...step);
  }, []);
  return { box: ref, canvas, blind, onKeyDown };
}
