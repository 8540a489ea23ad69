import type { Report } from "../../api/client";

/** The answer first: how strong a gust, what fails, when. */
export function Answer({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <section className="answer" aria-label="What it holds" aria-live="polite">
      <p className="verdict">
        <span className={h.limit > 0 ? "big" : "some"}>{h.limit_text}</span>
        <span className="word">
          {h.words}; needs {h.design_text}
        </span>
      </p>
      <p style={{ fontSize: 14 }}>{h.sentence}</p>
    </section>
  );
}

/** What stands beside the answer: as a forecast, after rain, by typical strengths, how often it fails. */
export function AnswerMore({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <div className="answer more">
      <dl>
        {h.forecast_text && (
          <>
            <dt>as a forecast gust</dt>
            <dd>{h.forecast_text}</dd>
          </>
        )}
        <dt>after days of rain</dt>
        <dd>{h.saturated_text}</dd>
        <dt>about half would fail at</dt>
        <dd>{h.bare_text}</dd>
        <dt>expected to fail</dt>
        <dd>
          {h.once_text} {h.spread_text && <span className="quiet">({h.spread_text})</span>}
        </dd>
      </dl>
      {h.asked_said && <p className="quiet">{h.asked_said}</p>}
    </div>
  );
}
