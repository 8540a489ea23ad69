import type { Schemas } from "../api/client";
import type { Flat } from "./scale";
import { say } from "../texts/say";

interface Word {
  key: string;
  x: number;
  y: number;
  anchor: "start" | "middle" | "end";
  text: string;
}

/** The lines, words and places to press of one option's curve. */
export interface CurveMarks {
  limit: string;
  cost: string;
  design: string;
  now: Flat;
  top: number;
  foot: number;
  words: Word[];
  spots: { x: number; width: number }[];
}

const EDGE = { left: 4, right: 4, top: 20, foot: 20 };

/** A curve laid out in a box: both lines from nothing up, so that their shapes can be compared. */
export function curveMarks(
  curve: Schemas["CurveReport"],
  size: { width: number; height: number },
): CurveMarks {
  const { points, present, required_gust } = curve;
  const values = points.map((point) => Number(point.value));
  const low = Math.min(...values);
  const span = Math.max(...values) - low || 1;
  const foot = size.height - EDGE.foot;
  const most = Math.max(required_gust * 1.2, ...points.map((point) => point.limit), 1);
  const dear = Math.max(...points.map((point) => point.cost), 0.01);
  const x = (value: number) => EDGE.left + ((value - low) / span) * (size.width - EDGE.left - EDGE.right);
  const y = (share: number) => foot - share * (foot - EDGE.top);
  const path = (share: (i: number) => number) =>
    values.map((value, i) => `${i ? "L" : "M"}${x(value).toFixed(1)} ${y(share(i)).toFixed(1)}`).join("");
  const at = (i: number) => points[i] ?? points[0];
  const [first, last, here] = [at(0), at(points.length - 1), at(present)];
  const middles = values.map(
    (value, i) => (x(value) + x(values[Math.min(i + 1, values.length - 1)] ?? value)) / 2,
  );
  const nowAt = x(values[present] ?? low);
  return {
    limit: path((i) => (at(i)?.limit ?? 0) / most),
    cost: path((i) => (at(i)?.cost ?? 0) / dear),
    design: `M${EDGE.left} ${y(required_gust / most).toFixed(1)}H${size.width - EDGE.right}`,
    now: [nowAt, y((here?.limit ?? 0) / most)],
    top: EDGE.top,
    foot,
    words: [
      { key: "low", x: EDGE.left, y: size.height - 5, anchor: "start", text: first?.text ?? "" },
      { key: "high", x: size.width - EDGE.right, y: size.height - 5, anchor: "end", text: last?.text ?? "" },
      { key: "gust", x: EDGE.left, y: 12, anchor: "start", text: say("drawing.curveLimit") },
      {
        key: "cost",
        x: size.width - EDGE.right,
        y: 12,
        anchor: "end",
        text: say("drawing.costTo", {
          costText: points.reduce((a, b) => (b.cost > a.cost ? b : a), first ?? { cost: 0, cost_text: "" })
            .cost_text,
        }),
      },
    ],
    spots: values.map((_, i) => {
      const start = i === 0 ? 0 : (middles[i - 1] ?? 0);
      return {
        x: start,
        width: Math.max((i === values.length - 1 ? size.width : (middles[i] ?? size.width)) - start, 1),
      };
    }),
  };
}
