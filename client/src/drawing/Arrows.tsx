import type { Report, View } from "../api/client";
import type { Scale } from "./scale";

const LONG = 46; // pixels of an arrow seen from the side

interface Props {
  report: Report;
  view: View["name"];
  scale: Scale;
  shown: readonly string[];
  short: boolean;
  weakest: string;
  edge: number;
}

/**
 * The forces of the links in hand, where they act: the pull of a guy, the push of an arch, the way a cage
 * goes over.
 */
export function Arrows({ report, view, scale, shown, short, weakest, edge }: Props) {
  const marks = report.links
    .filter((link) => shown.includes(link.key))
    .flatMap((link) =>
      link.arrows
        .filter((arrow) => arrow.view === view)
        .map((arrow, n) => ({ link, arrow, said: n === 0 ? link.carries_text : "" })),
    );
  return (
    <g pointerEvents="none">
      {marks.map(({ link, arrow, said }, i) => {
        const [x, y] = scale.at(arrow.at);
        const [dx, dy] = [arrow.towards[0] * LONG, -arrow.towards[1] * LONG];
        const size = Math.hypot(dx, dy);
        const [ux, uy] = [dx / size, dy / size];
        const ink = link.key === weakest && short ? "var(--weak)" : "var(--ink)";
        const [ex, ey] = [x + dx, y + dy];
        const past = ex > edge - 52;
        return (
          <g key={`${link.key}${i}`}>
            <path
              d={`M${x} ${y}L${ex} ${ey}M${ex - 9 * ux - 5 * uy} ${ey - 9 * uy + 5 * ux}L${ex} ${ey}L${ex - 9 * ux + 5 * uy} ${ey - 9 * uy - 5 * ux}`}
              stroke={ink}
              strokeWidth={2.4}
              fill="none"
              strokeLinejoin="round"
            />
            <text
              x={past ? edge - 4 : ex + 6 * ux}
              y={ey + (uy < -0.5 ? -5 : past ? 20 : 14)}
              textAnchor={ux < -0.3 || past ? "end" : "start"}
              className="force"
              fill={ink}
            >
              {said}
            </text>
          </g>
        );
      })}
    </g>
  );
}
