import type { Report } from "../../api/client";
import { StateMark } from "../../ui/StateMark";

/** The answer first: how strong a gust, what goes, when, and what stands beside it. */
export function Answer({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <section className="answer" aria-label="What it holds" aria-live="polite">
      <div style={{ display: "flex", gap: 8, alignItems: "center" }}>
        <StateMark state={h.state} />
        <span className={h.limit > 0 ? "big" : ""} style={{ fontWeight: 600, whiteSpace: h.limit > 0 ? "nowrap" : "normal" }}>
          {h.limit_text}
        </span>
        <span>
          {h.words} at {h.design_text}
          <br />
          <span className="quiet" style={{ fontSize: 13 }}>
            {h.forecast_text}
          </span>
        </span>
      </div>
      <p style={{ fontSize: 14 }}>{h.sentence}</p>
      <dl>
        <dt>after days of rain</dt>
        <dd>{h.saturated_text}</dd>
        <dt>without safety factors</dt>
        <dd>{h.bare_text}</dd>
      </dl>
    </section>
  );
}
