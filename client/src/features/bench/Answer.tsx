import type { Report } from "../../api/client";

/** The answer first: how strong a gust, what goes, when, and what stands beside it. */
export function Answer({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <section className="answer" aria-label="What it holds" aria-live="polite">
      <p className="verdict">
        <span className={h.limit > 0 ? "big" : "some"}>{h.limit_text}</span>
        <span className="word">
          {h.words} at {h.design_text}
        </span>
      </p>
      <p style={{ fontSize: 14 }}>{h.sentence}</p>
      <dl>
        {h.forecast_text && (
          <>
            <dt>as forecast</dt>
            <dd>{h.forecast_text}</dd>
          </>
        )}
        <dt>after days of rain</dt>
        <dd>{h.saturated_text}</dd>
        <dt>without safety factors</dt>
        <dd>{h.bare_text}</dd>
      </dl>
    </section>
  );
}
