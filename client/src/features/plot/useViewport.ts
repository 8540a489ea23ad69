import { useGesture } from "@use-gesture/react";
import { useCallback, useMemo, useState, type RefObject } from "react";

import type { Flat } from "../../drawing/scale";

export interface Viewport {
  perMetre: number;
  middle: Flat;
}

const LEAST = 3;
const MOST = 400;
const MARGIN = 46;
const WHEEL_STEP = 40; // pixels: a mouse's wheel jumps further than fingers on a trackpad move at once

const clamp = (perMetre: number) => Math.min(Math.max(perMetre, LEAST), MOST);

/** The viewport that shows everything between two corners. */
export function fitted(low: Flat, high: Flat, width: number, height: number): Viewport {
  const perMetre = clamp(
    Math.min((width - 2 * MARGIN) / (high[0] - low[0]), (height - 2 * MARGIN) / (high[1] - low[1]), 140),
  );
  return { perMetre, middle: [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2] };
}

/**
 * Zoom and pan with mouse, trackpad and touch: drag the ground, turn the wheel to zoom, two fingers on a
 * trackpad move, a pinch zooms where it is. What `isItem` says is a thing in hand is left to that thing.
 */
export function useViewport(
  ref: RefObject<HTMLElement | null>,
  low: Flat,
  high: Flat,
  width: number,
  height: number,
  isItem: (event: Event) => boolean,
) {
  const [moved, setMoved] = useState<Viewport | null>(null);
  const fit = useMemo(() => fitted(low, high, width, height), [low, high, width, height]);
  const view = moved ?? fit;

  const zoomAt = useCallback(
    (factor: number, at?: readonly [number, number]) =>
      setMoved((now) => {
        const from = now ?? fit;
        const perMetre = clamp(from.perMetre * factor);
        const [dx, dy] = at ? [at[0] - width / 2, height / 2 - at[1]] : [0, 0];
        const shift = 1 / from.perMetre - 1 / perMetre;
        return { perMetre, middle: [from.middle[0] + dx * shift, from.middle[1] + dy * shift] };
      }),
    [fit, width, height],
  );
  const panBy = useCallback(
    (dx: number, dy: number) =>
      setMoved((now) => {
        const from = now ?? fit;
        return {
          ...from,
          middle: [from.middle[0] - dx / from.perMetre, from.middle[1] + dy / from.perMetre],
        };
      }),
    [fit],
  );
  const spot = (clientX: number, clientY: number): [number, number] => {
    const box = ref.current?.getBoundingClientRect();
    return [clientX - (box?.left ?? 0), clientY - (box?.top ?? 0)];
  };
  useGesture(
    {
      onDrag: ({ event, first, delta: [dx, dy], cancel, pinching }) => {
        if (pinching || (first && isItem(event))) {
          cancel();
          return;
        }
        panBy(dx, dy);
      },
      onPinch: ({ origin: [x, y], movement: [scale], event, memo }) => {
        event.preventDefault();
        zoomAt(scale / ((memo as number | undefined) ?? 1), spot(x, y));
        return scale;
      },
      onWheel: ({ event, delta: [dx, dy], ctrlKey, pinching }) => {
        event.preventDefault();
        if (ctrlKey || pinching) return;
        const wheel =
          event.deltaMode !== 0 ||
          (dx === 0 && Math.abs(event.deltaY) >= WHEEL_STEP && Number.isInteger(event.deltaY));
        if (wheel) zoomAt(Math.exp(-Math.sign(dy) * 0.18), spot(event.clientX, event.clientY));
        else panBy(-event.deltaX, -event.deltaY);
      },
    },
    {
      target: ref,
      eventOptions: { passive: false },
      drag: { filterTaps: true, pointer: { buttons: [1, 4] } },
      pinch: { scaleBounds: { min: 0.01, max: 100 } },
    },
  );
  return { view, zoomAt, panBy, fit: useCallback(() => setMoved(null), []), look: setMoved } as const;
}
