import type { Report } from "../../api/client";
import { StateMark } from "../../ui/StateMark";

/** The answer first: how strong a gust, what goes, when, and what stands beside it. */
export function Answer({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <section className="answer" aria-label="What it holds" aria-live="polite">
      <div style={{ display: "flex", gap: 8, alignItems: "center" }}>
        <StateMark state={h.state} />
        <span className={h.limit > 0 ? "big" : ""} style={{ fontWeight: 600 }}>
          {h.limit_text}
        </span>
        <span>
          {h.words}
          <br />
          <span className="quiet" style={{ fontSize: 13 }}>
            at {h.design_text}
          </span>
        </span>
      </div>
      <p style={{ fontSize: 14 }}>{h.sentence}</p>
      <dl>
        <dt>forecast</dt>
        <dd>{h.forecast_text || "any breeze"}</dd>
        <dt>after days of rain</dt>
        <dd>{h.saturated_text}</dd>
        <dt>without safety factors</dt>
        <dd>{h.bare_text}</dd>
        <dt>crop margin</dt>
        <dd>{h.margin_text}</dd>
      </dl>
    </section>
  );
}
