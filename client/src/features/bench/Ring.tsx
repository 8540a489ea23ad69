import type { LinkReport } from "../../api/client";
import { BRIEFLY } from "../../ui/states";
import { say } from "../../texts/say";

interface Props {
  link: LinkReport;
  week: number;
  x: number;
  y: number;
  weak: boolean;
  open: boolean;
  lit: boolean;
  onOpen: (key: string) => void;
  onPoint: (key: string | null) => void;
}

const HALF = 11;
const TALL = 50;
const INNER = TALL - 20;

/**
 * One link of the chain: its thickness what it carries, its core how much of it is used, sprung open when it
 * is the weakest, red when it falls short.
 */
export function Ring({ link, week, x, y, weak, open, lit, onOpen, onPoint }: Props) {
  const use = link.utilisation[week] ?? 0;
  const state = link.states[week] ?? "adequate";
  const ink = state === "inadequate" ? "var(--weak)" : "var(--ink)";
  const thick = Math.min(1.6 + 1.9 * Math.log10(1 + link.carries / 12), 6.5);
  const core = Math.min(use, 1) * INNER;
  const closed = `M${x - HALF} ${y + 12}a${HALF} ${HALF} 0 0 1 ${2 * HALF} 0V${y + TALL - 12}a${HALF} ${HALF} 0 0 1 ${-2 * HALF} 0Z`;
  const sprung = `M${x + HALF + 5} ${y + 16}l-5 -1V${y + 12}a${HALF} ${HALF} 0 0 0 ${-2 * HALF} 0V${y + TALL - 12}a${HALF} ${HALF} 0 0 0 ${2 * HALF} 0v-3l5 -1`;
  const used = use > 90 ? "over 90" : use.toFixed(2);
  return (
    <g
      className="chainlink"
      role="button"
      tabIndex={0}
      aria-pressed={open}
      onClick={() => onOpen(link.key)}
      onKeyDown={(event) => {
        if (event.key !== "Enter" && event.key !== " ") return;
        event.preventDefault();
        onOpen(link.key);
      }}
      onPointerEnter={() => onPoint(link.key)}
      onPointerLeave={() => onPoint(null)}
      onFocus={() => onPoint(link.key)}
      onBlur={() => onPoint(null)}
    >
      <rect
        className="hit"
        x={x - 18}
        y={y - 3}
        width={148}
        height={TALL + 8}
        fill={open || lit ? "var(--press)" : "transparent"}
      />
      <rect
        x={x - 3}
        y={y + 10}
        width={6}
        height={INNER}
        fill="var(--paper)"
        stroke={ink}
        strokeWidth={0.8}
        strokeOpacity={0.55}
      />
      <rect x={x - 3} y={y + 10 + INNER - core} width={6} height={core} fill={ink} />
      <path
        d={weak ? sprung : closed}
        fill="none"
        stroke={ink}
        strokeWidth={thick}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <text fill="var(--ink2)" className="narrow">
        <tspan x={x + 22} y={y + 17} fontSize={15} fontWeight={600} fill={ink} className="wide-face">
          {link.title}
        </tspan>{" "}
        <tspan
          x={x + 22}
          y={y + 33}
          fontSize={13.5}
          fill={weak || state === "inadequate" ? ink : "var(--ink2)"}
        >
          {`${weak ? say("bench.failsFirst") : BRIEFLY[state]}, ${link.carries_text}`}
        </tspan>{" "}
        <tspan x={x + 22} y={y + 47} fontSize={12.5}>
          {say("bench.ofItsLimit", { used })}
        </tspan>
      </text>
    </g>
  );
}
