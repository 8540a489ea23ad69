import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

type Cut = Schemas["CutReport"];

const WIDE = 640;
const HIGH = 26;

/** How stock is cut: each length as a bar, drawn to one scale, what is left of it open. */
export function CutList({ cuts }: { cuts: readonly Cut[] }) {
  if (!cuts.length) return null;
  const longest = Math.max(...cuts.map((each) => each.length));
  return (
    <section className="cutlist" aria-label={say("parts.cutList")}>
      <h2>{say("parts.cutList")}</h2>
      <ul>
        {cuts.map((cut, index) => (
          <li key={index}>
            <p>
              <strong>
                {cut.bars} × {cut.length_text}
              </strong>{" "}
              {cut.name} <span className="quiet">{cut.use}</span>
              {cut.own && <span className="ownmark">{say("parts.fromTheShed")}</span>}
            </p>
            <CutBar cut={cut} longest={longest} />
            <p className="quiet">
              {say("parts.left", {
                cuts: cut.cuts.map(([, text]) => text).join(" + "),
                restText: cut.rest_text,
                looked: cut.looked,
              })}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

function CutBar({ cut, longest }: { cut: Cut; longest: number }) {
  const scale = WIDE / longest;
  const starts = cut.cuts.map((_, n) => cut.cuts.slice(0, n).reduce((sum, [length]) => sum + length, 0));
  return (
    <svg className="cutbar" viewBox={`0 0 ${WIDE} ${HIGH}`} aria-hidden="true">
      <rect className="stock" x={0.5} y={0.5} width={Math.max(cut.length * scale - 1, 1)} height={HIGH - 1} />
      {cut.cuts.map(([length, text], n) => (
        <g key={`${text}-${starts[n] ?? 0}`}>
          <rect
            className="piece"
            x={(starts[n] ?? 0) * scale + 1}
            y={1}
            width={Math.max(length * scale - 2, 1)}
            height={HIGH - 2}
          />
          {length * scale > 44 && (
            <text x={((starts[n] ?? 0) + length / 2) * scale} y={HIGH / 2 + 4.5} textAnchor="middle">
              {text}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
